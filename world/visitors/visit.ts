import { solveChallenge } from 'altcha-lib/v1'
import type { SiteForms } from '../web/site-forms'
import { askFrom } from './ask'
import { fillIn, readForm, type ReadForm } from './form'
import type { Visitor } from './hour'

/** So long somebody reads and types before they send, ms of the host's: a form knows by its own clock when it was drawn. */
const READS = 2_600
const SITE = 'https://galewright.example'

/**
 * What somebody does on a page with a form, by what a browser would do: the page with the one line, the forms that it asks
 * for, that one came into sight, was begun, the work, and what is sent in. Done when they have looked; what follows from
 * that goes on by itself.
 * @param proxy Through which the practice sites are reached.
 */
export async function visitForm(visitor: Visitor, { satchel }: SiteForms, proxy: string) {
  const { form, page, source, ip, agent, does } = visitor
  const address = `${satchel}/s/${form.key}`
  const query = source ? `?utm_source=${source}` : ''
  const headers: Record<string, string> = {
    'User-Agent': agent,
    ...(page ? { Origin: SITE, Accept: 'application/json' } : {}),
  }
  const ask = (url: string, body?: URLSearchParams) =>
    askFrom(ip, url, {
      headers: body ? { ...headers, 'Content-Type': 'application/x-www-form-urlencoded' } : headers,
      ...(body ? { method: 'POST', body: body.toString() } : {}),
    })
  if (does === 'bot') return void (await tryAsBot(visitor, address, ask))
  const drawn = page ? await onSite() : readForm((await ask(`${address}${query}`)).text)
  if (!drawn) return
  const tell = (what: 'seen' | 'begun') =>
    ask(
      `${address}/seen`,
      new URLSearchParams({
        ...{ what, language: 'en', page: page ? SITE + page : address },
        ...(source ? { utm_source: source } : {}),
      }),
    )
  await tell('seen')
  if (does === 'looks') return
  await tell('begun')
  if (does === 'sends') void send(drawn).catch(() => {})

  /** The form as the page's one line draws it there; null where the page has no such line or no place for it. */
  async function onSite(): Promise<ReadForm | null> {
    const { text } = await askFrom(ip, SITE + page + query, { headers, through: proxy })
    const line = /<script async src="(https?:\/\/[^"]+)\/s\/forms\.js">/.exec(text)?.[1]
    if (!line || !text.includes(`data-sign-up="${form.key}"`)) return null
    const { forms = [] } = JSON.parse((await ask(`${line}/s/forms.json?lang=en`)).text) as {
      forms?: { key: string; html: string }[]
    }
    const found = forms.find(({ key }) => key === form.key)
    return found ? readForm(found.html) : null
  }

  async function send(drawn: ReadForm) {
    const reading = new Promise((done) => setTimeout(done, READS))
    const work = await workFor(address, ask)
    await reading
    const typed = { ...visitor, address: visitor.slips ? slip(visitor.address) : visitor.address }
    const body = fillIn(drawn, typed)
    if (page) body.set('page', SITE + page)
    body.set('work', work)
    const { text } = await ask(address, body)
    // Asked about their address, they see what they did.
    const again = readForm(page ? ((JSON.parse(text) as { html?: string }).html ?? '') : text)
    if (!again?.meant) return
    const right = fillIn(again, typed)
    right.set('meant', again.meant)
    if (page) right.set('page', SITE + page)
    right.set('work', await workFor(address, ask))
    await ask(address, right)
  }
}

type Ask = (url: string, body?: URLSearchParams) => Promise<{ text: string }>

/** The little work that a form asks of a browser. */
async function workFor(address: string, ask: Ask): Promise<string> {
  const { maxnumber, ...set } = JSON.parse((await ask(`${address}/work`)).text) as {
    algorithm: string
    challenge: string
    maxnumber: number
    salt: string
  }
  const solved = await solveChallenge(set.challenge, set.salt, set.algorithm, maxnumber).promise
  return solved ? btoa(JSON.stringify({ ...set, number: solved.number })) : ''
}

/** A program fills in whatever it finds, at once, and does no work. */
async function tryAsBot({ address: whose }: Visitor, address: string, ask: Ask) {
  const drawn = readForm((await ask(address)).text)
  if (!drawn) return
  const body = new URLSearchParams()
  for (const { name, type, value } of drawn.fields)
    body.set(name, type === 'hidden' ? value : type === 'email' ? whose : value || 'yes')
  await ask(address, body)
}

/** The last two letters before the dot change places. */
const slip = (address: string) => address.replace(/(.)(.)(\.[a-z]+)$/, '$2$1$3')
