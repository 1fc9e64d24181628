import { once } from 'node:events'
import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import type { BrowserContext, Page } from 'playwright-core'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { readForm } from '../core/sign-ups'
import { all, q } from '../database'
import { personByAddress, personDetails, subscriptionState } from '../database/people'
import { addSignUp, publishSignUp, signUpById } from '../database/sign-ups'
import { PAGE_WAITS } from './patience'
import { visit, type Visitor } from './browser'
import { install, until, type Installation } from './installation'
import { mailTo } from './practice-mail'
import { addSubscribers } from './subscribers'

let satchel: Installation
let team: Visitor
/** Somebody else's site: each path a page with a policy that lets through what users.md says, and nothing more. */
let site: Server
let siteUrl: string
const sitePages = new Map<string, string>()
const sendings = () => all(satchel.db, q.selectFrom('sign_up_sendings').selectAll().orderBy('id'))
const state = (address: string) => {
  const person = personByAddress(satchel.db, address)
  return person === undefined ? null : subscriptionState(satchel.db, person, 1)
}

beforeAll(async () => {
  satchel = await install({ env: { WORLD_CLOCK_URL: 'http://127.0.0.1:9/' } })
  // So many write from there that what is nearly it may be a slip of the hand.
  addSubscribers(satchel.db, 25, 'inkpost.example')
  await Promise.all([satchel.start('world'), satchel.start('web'), satchel.start('engine')])
  team = await visit()
  site = createServer((request, response) => {
    const page = sitePages.get(request.url!.split('?')[0]!)
    response.writeHead(page ? 200 : 404, {
      'Content-Type': 'text/html; charset=utf-8',
      'Content-Security-Policy': `default-src 'none'; script-src ${satchel.url}; connect-src ${satchel.url}; img-src ${satchel.url}; style-src 'nonce-own'`,
    })
    response.end(page)
  }).listen(0, '127.0.0.1')
  await once(site, 'listening')
  siteUrl = `http://127.0.0.1:${(site.address() as AddressInfo).port}`
  await team.page.goto(satchel.enterUrl)
})
afterAll(async () => {
  site?.close()
  await team?.close()
  await satchel?.stop()
})

/** A live form, made beside its pages; its key. */
function liveForm(name: string, form: Record<string, unknown>): string {
  const { db } = satchel
  const whole = readForm({
    ...{ kind: 'in-page', languages: ['en'], privacy: 'https://galewright.example/privacy' },
    thanks: { title: { en: 'Look into your mailbox' }, text: {} },
    confirmed: { title: { en: 'It is done' }, text: { en: 'Welcome.' } },
    ...form,
  })!
  const id = addSignUp(db, name, whole, Date.now())
  publishSignUp(db, id, 1, 'Wren', Date.now())
  return signUpById(db, id)!.key
}
const windBox = { id: 'wind', kind: 'consent', text: { en: 'Send me Wind notes.' }, lists: [1] }
const parts = [
  { id: 'heading', kind: 'heading', text: { en: 'Twelve beaches' } },
  { id: 'name', kind: 'field', field: 'first_name' },
  { id: 'mail', kind: 'field', field: 'address' },
  windBox,
  { id: 'send', kind: 'button', label: { en: 'Send me the guide' } },
  { id: 'small', kind: 'small', text: {} },
  { id: 'from', kind: 'hidden', param: 'utm_source' },
]

/** A visitor of its own, who is not signed in. */
async function stranger<T>(
  scripts: boolean,
  does: (page: Page, context: BrowserContext) => Promise<T>,
): Promise<T> {
  const context = await team.page.context().browser()!.newContext({ javaScriptEnabled: scripts })
  try {
    const page = await context.newPage()
    page.setDefaultTimeout(PAGE_WAITS)
    return await does(page, context)
  } finally {
    await context.close()
  }
}
const confirmLink = (text: string | undefined) =>
  /http\S+\/s\/confirm\/[\w-]{32}/.exec(text ?? '')![0]

test('a form is made from a purpose, written in place, and published once nothing keeps it', async () => {
  const { page } = team
  await page.goto(`${satchel.url}/sign-ups`)
  await page.getByRole('heading', { name: 'No sign-ups yet' }).waitFor()
  await team.expectAccessible()
  await page.getByRole('button', { name: 'New sign-up' }).click()
  await page.getByRole('button', { name: /^Regular letter/ }).click()
  await page.getByText('There is no link to what you do with it').waitFor()
  await team.expectAccessible()
  const heading = page.getByRole('textbox', { name: 'Heading' })
  await heading.fill('Wind notes, every Tuesday')
  await page.getByRole('button', { name: 'Undo' }).click()
  expect(await heading.inputValue()).toBe('Wind notes, by mail')
  await page.getByRole('button', { name: 'Redo' }).click()
  await page.getByLabel('Ask for another field').selectOption('first_name')
  await page.getByText('First name: why is it asked?').waitFor()
  await page.getByLabel('Why you ask it').fill('The letter greets by it.')
  await page.getByLabel('Why you ask it').press('Enter')
  await page.getByText('First name: why is it asked?').waitFor({ state: 'detached' })
  await page.getByRole('link', { name: 'Consent' }).click()
  await page.getByLabel(/The page that says so/).fill('https://galewright.example/privacy')
  await page.getByLabel(/The page that says so/).press('Enter')
  await page.getByText('Nothing keeps it.').waitFor()
  await team.expectAccessible()
  await page.getByRole('link', { name: 'Placement' }).click()
  await page.getByRole('button', { name: 'Publish 1' }).click()
  await page.getByText('Version 1 is live').first().waitFor()
  await page.getByText('Version 1 is published').waitFor()
  expect(await page.getByRole('button', { name: 'Publish 2' }).isDisabled()).toBe(true)
  await team.expectAccessible()
  const address = await page.getByRole('link', { name: /\/s\/\w+$/ }).innerText()
  await stranger(false, async (visitor) => {
    await visitor.goto(address)
    await visitor.getByRole('heading', { name: 'Wind notes, every Tuesday' }).waitFor()
  })
  // What is changed now stands in public only once it is published.
  await page.getByRole('link', { name: 'Form', exact: true }).click()
  await heading.fill('Another heading')
  await page.getByText('Before version 2 can go live').waitFor()
  await stranger(false, async (visitor) => {
    await visitor.goto(address)
    await visitor.getByRole('heading', { name: 'Wind notes, every Tuesday' }).waitFor()
  })
})

test('each state is seen and written; pausing closes it, deleting is undone', async () => {
  const { page } = team
  await page.getByRole('button', { name: 'Mistakes' }).click()
  await page.getByText('Nothing was sent yet. Please look at what is marked.').waitFor()
  await page.getByRole('button', { name: 'Thanks' }).click()
  await page.getByRole('textbox', { name: 'Title' }).fill('Nearly there')
  await page.getByRole('link', { name: 'Afterwards' }).click()
  await until(
    'the title stands there, too',
    async () => (await page.getByLabel('Title').first().inputValue()) === 'Nearly there',
  )
  await team.expectAccessible()
  await page.getByRole('link', { name: 'Placement' }).click()
  const address = await page.getByRole('link', { name: /\/s\/\w+$/ }).innerText()
  const stands = (status: number) =>
    until(`its page answers ${status}`, async () => (await fetch(address)).status === status)
  await page.getByRole('button', { name: 'More' }).click()
  await page.getByRole('menuitem', { name: 'Pause' }).click()
  await stands(404)
  await page.getByRole('button', { name: 'More' }).click()
  await page.getByRole('menuitem', { name: 'Go on' }).click()
  await stands(200)
  await page.getByRole('button', { name: 'More' }).click()
  await page.getByRole('menuitem', { name: 'Delete' }).click()
  await page.getByText('The sign-up is deleted.').waitFor()
  await stands(404)
  await page.getByRole('button', { name: 'Undo' }).last().click()
  await stands(200)
})

test('without a script: mistakes lose nothing, a slip is asked about, the letter comes, and a press behind its link confirms', async () => {
  const key = liveForm('Hosted', { kind: 'hosted', parts })
  await stranger(false, async (page) => {
    await page.goto(`${satchel.url}/s/${key}?utm_source=${encodeURIComponent('<b>poster</b>')}`)
    // Nobody reads and fills it in at once.
    await page.waitForTimeout(1_600)
    await page.getByLabel('First name').fill('Tove "O’Neil"')
    await page.getByLabel('E-mail address').fill('tove at inkpost')
    await page.getByRole('button', { name: 'Send me the guide' }).click()
    await page.getByText('This is not an address that can be written to').waitFor()
    await page.getByText('Please tick what you would like to get.').waitFor()
    expect(await page.getByLabel('First name').inputValue()).toBe('Tove "O’Neil"')
    await page.waitForTimeout(1_600)
    await page.getByLabel('E-mail address').fill('tove@inkpots.example')
    await page.getByLabel('Send me Wind notes.').check()
    await page.getByRole('button', { name: 'Send me the guide' }).click()
    await page.getByText('Did you mean tove@inkpost.example?').waitFor()
    await page.waitForTimeout(1_600)
    await page.getByRole('button', { name: 'Yes, use that' }).click()
    await page.getByRole('heading', { name: 'Look into your mailbox' }).waitFor()
    const mail = await mailTo(satchel, 'tove@inkpost.example', 'Please confirm: was that you?')
    const link = confirmLink(mail.text)
    // A scanner that follows links confirms nothing.
    await fetch(link)
    expect(state('tove@inkpost.example')).toBeNull()
    await page.goto(link)
    await page.getByText('Send me Wind notes.').waitFor()
    await page.getByRole('button', { name: 'Yes, that was me' }).click()
    await page.getByText('Welcome.').waitFor()
    expect(state('tove@inkpost.example')).toBe('subscribed')
    await page.goto(link)
    await page.getByText('Welcome.').waitFor()
    await page.getByRole('link', { name: 'Change what you get' }).click()
    await page.getByRole('heading', { name: 'Your lists' }).waitFor()
  })
  const person = personByAddress(satchel.db, 'tove@inkpost.example')!
  expect(personDetails(satchel.db, person)!.person.first_name).toBe('Tove "O’Neil"')
  expect(sendings().at(-1)).toMatchObject({
    ...{ state: 'confirmed', page: `/s/${key}`, language: 'en', version: 1 },
    source: JSON.stringify({ utm_source: '<b>poster</b>' }),
  })
  await team.page.goto(`${satchel.url}/people/${person}`)
  await team.page
    .getByText(/Hosted, version 1/)
    .first()
    .waitFor()
})

test('on a phone, and for who can’t see it, in the language of the browser', async () => {
  const key = liveForm('In German', {
    ...{ kind: 'hosted', languages: ['en', 'de'] },
    parts: [
      { ...parts[0]!, text: { en: 'Twelve beaches', de: 'Zwölf Strände' } },
      ...parts.slice(1),
    ],
  })
  const context = await team.page
    .context()
    .browser()!
    .newContext({ locale: 'de-DE', viewport: { width: 320, height: 700 } })
  const page = await context.newPage()
  await page.goto(`${satchel.url}/s/${key}`)
  await page.getByRole('heading', { name: 'Zwölf Strände' }).waitFor()
  await page.getByText('Vorname').waitFor()
  expect(await page.evaluate('document.documentElement.scrollWidth')).toBe(320)
  await page.getByRole('link', { name: 'English' }).click()
  await page.getByRole('heading', { name: 'Twelve beaches' }).waitFor()
  await context.close()
  await team.page.goto(`${satchel.url}/s/${key}`)
  await team.expectAccessible()
})

test('one line brings forms to another site, under a strict policy: each in its place, by keys alone', async () => {
  const inPage = liveForm('On the page', { parts })
  const popOver = liveForm('Over the page', {
    kind: 'pop-over',
    parts: [{ ...parts[0]!, text: { en: 'Before you go' } }, ...parts.slice(1)],
    placement: { position: 'middle', afterSeconds: 2, afterShare: null },
  })
  sitePages.set(
    '/beaches',
    `<!doctype html><html lang="en"><meta charset="utf-8"><title>Beaches</title><style nonce="own">h2,label{color:red;font-size:40px!important}</style><h1>Beaches</h1><div data-sign-up="${inPage}"></div><p><a href="#more">More</a></p><script async src="${satchel.url}/s/forms.js"></script></html>`,
  )
  const visitsThere = () =>
    all(
      satchel.db,
      q.selectFrom('sign_up_visits').selectAll().where('page', '=', `${siteUrl}/beaches`),
    )
  await stranger(true, async (page, context) => {
    const errors: string[] = []
    page.on('console', (said) => said.type() === 'error' && errors.push(said.text()))
    await page.goto(`${siteUrl}/beaches?utm_source=map`)
    const dialog = page.getByRole('dialog', { name: 'Before you go' })
    await dialog.waitFor()
    // It holds the keys until it is closed: a round of Tab stays within it.
    for (let i = 0; i < 12; i++) {
      await page.keyboard.press('Tab')
      const inside = await page.evaluate(
        '(document.activeElement === document.body || document.activeElement.shadowRoot !== null)',
      )
      expect(inside).toBe(true)
    }
    // Half of it in sight for a second: it was seen.
    await until('it counts as seen', () => visitsThere().length === 2)
    await page.keyboard.press('Escape')
    await dialog.waitFor({ state: 'detached' })
    const heading = page.getByRole('heading', { name: 'Twelve beaches' })
    expect(await heading.evaluate((node) => getComputedStyle(node).color)).not.toBe(
      'rgb(255, 0, 0)',
    )
    await page.getByLabel('E-mail address').fill('ada@inkpost.example')
    await page.keyboard.press('Tab')
    await page.keyboard.press('Space')
    await page.keyboard.press('Tab')
    await page.keyboard.press('Enter')
    await page.getByRole('heading', { name: 'Look into your mailbox' }).waitFor()
    await page.goto(`${siteUrl}/beaches`)
    await page.getByRole('heading', { name: 'Twelve beaches' }).waitFor()
    await page.waitForTimeout(2_500)
    // Who has joined is not asked again, and no cookie was set.
    expect(await page.getByRole('dialog').count()).toBe(0)
    expect(await context.cookies()).toEqual([])
    expect(errors).toEqual([])
  })
  expect(popOver).not.toBe(inPage)
  expect(sendings().at(-1)!.work).not.toBeNull()
  const mail = await mailTo(satchel, 'ada@inkpost.example', 'Please confirm: was that you?')
  await fetch(confirmLink(mail.text), { method: 'POST' })
  expect(state('ada@inkpost.example')).toBe('subscribed')
  expect(sendings().at(-1)).toMatchObject({
    page: `${siteUrl}/beaches`,
    source: JSON.stringify({ utm_source: 'map' }),
  })
  expect(visitsThere().map(({ begun, device }) => [begun, device])).toEqual(
    expect.arrayContaining([
      [1, 'computer'],
      [0, 'computer'],
    ]),
  )
})

test('a plain form, pasted without a script, is shown once more and then taken; its address is always confirmed', async () => {
  const key = liveForm('Plain', { parts, doubleOptIn: false, sites: ['https://plain.example'] })
  const signUp = all(satchel.db, q.selectFrom('sign_ups').selectAll()).find(
    (one) => one.key === key,
  )!
  await team.page.goto(`${satchel.url}/sign-ups/${signUp.id}/placement`)
  await team.page.getByText('Without a script: as a plain form').click()
  const pasted = await team.page.getByLabel('Lines to paste, as a plain form').inputValue()
  expect(pasted).not.toMatch(/class=|<script|token/)
  sitePages.set('/plain', `<!doctype html><title>Plain</title>${pasted}`)
  await stranger(false, async (page) => {
    // Nothing of a page that may post anywhere stands in its way.
    await page.setContent(sitePages.get('/plain')!)
    await page.getByLabel('E-mail address').fill('plain@inkpost.example')
    await page.getByLabel('Send me Wind notes.').check()
    await page.getByRole('button', { name: 'Send me the guide' }).click()
    await page.getByText('One more look, please').waitFor()
    expect(await page.getByLabel('E-mail address').inputValue()).toBe('plain@inkpost.example')
    await page.waitForTimeout(1_600)
    await page.getByRole('button', { name: 'Send me the guide' }).click()
    await page.getByRole('heading', { name: 'Look into your mailbox' }).waitFor()
  })
  expect(sendings().at(-1)).toMatchObject({ normal: 'plain@inkpost.example', state: 'pending' })
  expect(state('plain@inkpost.example')).toBeNull()
})

test('on a site that is not named nothing is drawn, and nothing is taken', async () => {
  const key = liveForm('For one site', { parts, sites: ['https://galewright.example'] })
  const ask = (origin: string) =>
    fetch(`${satchel.url}/s/forms.json?key=${key}`, { headers: { origin } })
  const mine = await ask('https://galewright.example')
  expect(mine.status).toBe(200)
  expect(mine.headers.get('access-control-allow-origin')).toBe('https://galewright.example')
  expect(((await mine.json()) as { forms: unknown[] }).forms).toHaveLength(1)
  const other = await ask('https://elsewhere.example')
  expect(other.status).toBe(403)
  expect(((await other.json()) as { message: string }).message).toContain('elsewhere.example')
  const before = sendings().length
  const posted = await fetch(`${satchel.url}/s/${key}`, {
    method: 'POST',
    headers: { origin: 'https://elsewhere.example', accept: 'application/json' },
    body: new URLSearchParams({ 'f.mail': 'x@inkpost.example', 't.wind': 'yes' }),
  })
  expect(posted.status).toBe(403)
  expect(sendings()).toHaveLength(before)
  const frame = (asked: string) => fetch(`${satchel.url}/s/${key}${asked}`)
  const policy = async (asked: string) =>
    (await frame(asked)).headers.get('content-security-policy')!
  expect(await policy('?in=page')).toContain('frame-ancestors https://galewright.example')
  expect(await policy('')).toContain("frame-ancestors 'none'")
})

test('what comes afterwards: a kept file for who has confirmed, a page of one’s own, and a program that is told', async () => {
  const key = liveForm('Afterwards', { kind: 'hosted', parts, tell: { how: 'never' } })
  const { id } = all(satchel.db, q.selectFrom('sign_ups').select(['id', 'key'])).find(
    (one) => one.key === key,
  )!
  const { page } = team
  await page.goto(`${satchel.url}/sign-ups/${id}/afterwards`)
  await page.getByLabel('Upload a file').setInputFiles({
    ...{ name: 'Zwölf Strände.pdf', mimeType: 'application/pdf' },
    buffer: Buffer.from('%PDF-1.4 beaches'),
  })
  await page.getByText('Zwölf Strände.pdf').waitFor()
  await page.getByLabel('What it is called').fill('Twelve beaches')
  await page.getByLabel('What it is called').press('Enter')
  sitePages.set('/thanks', '<!doctype html><title>Thanks</title><h1>Thanks from the site</h1>')
  const thanks = page.getByRole('region', { name: 'Thanks' })
  await thanks.getByLabel(/^Or a page of your own/).fill(`${siteUrl}/thanks`)
  await thanks.getByLabel(/^Or a page of your own/).press('Enter')
  await page.getByLabel('Set another field').selectOption('last_name')
  await page.getByLabel('Value of Last name', { exact: true }).fill('Unknown')
  await page.getByLabel('Value of Last name', { exact: true }).press('Enter')
  await page.getByLabel(/^A program, at its webhook/).fill(`${siteUrl}/hook`)
  await page.getByLabel(/^A program, at its webhook/).press('Enter')
  await page.getByText('The webhook is not encrypted').waitFor()
  await page.getByText('so nothing was sent yet').waitFor()
  await team.expectAccessible()
  const publish = page.getByRole('button', { name: 'Publish 2' })
  await publish.click()
  await page.getByText('Version 2 is live').waitFor()
  await stranger(false, async (visitor) => {
    await visitor.goto(`${satchel.url}/s/${key}`)
    await visitor.waitForTimeout(1_600)
    await visitor.getByLabel('E-mail address').fill('guide@inkpost.example')
    await visitor.getByLabel('Send me Wind notes.').check()
    await visitor.getByRole('button', { name: 'Send me the guide' }).click()
    await visitor.getByRole('heading', { name: 'Thanks from the site' }).waitFor()
    const mail = await mailTo(satchel, 'guide@inkpost.example', 'Please confirm: was that you?')
    await visitor.goto(confirmLink(mail.text))
    await visitor.getByRole('button', { name: 'Yes, that was me' }).click()
    const link = await visitor.getByRole('link', { name: 'Twelve beaches' }).getAttribute('href')
    const file = await fetch(link!)
    expect(file.headers.get('content-type')).toBe('application/pdf')
    expect(file.headers.get('content-disposition')).toContain('Zw%C3%B6lf%20Str%C3%A4nde.pdf')
    expect(await file.text()).toBe('%PDF-1.4 beaches')
    expect(
      (await fetch(link!.replace(/.(?=.{10}$)/, (sign) => (sign === 'a' ? 'b' : 'a')))).status,
    ).toBe(404)
  })
  const person = personByAddress(satchel.db, 'guide@inkpost.example')!
  expect(personDetails(satchel.db, person)!.person.last_name).toBe('Unknown')
  // The site lies in no public network and nobody said that it may be asked, so nothing goes there.
  const told = page.getByText('it is no address on the public internet; tried again')
  await until('the call was tried', async () => {
    await page.reload()
    await page.getByRole('link', { name: 'guide@inkpost.example' }).waitFor()
    return told.isVisible()
  })
  await page.getByRole('button', { name: 'Send again' }).click()
  await page.getByText('It is sent again now.').waitFor()
})

test('at a desk the form clears itself, keeps what is entered while there is no line, and hands each in once', async () => {
  const key = liveForm('Desk', { kind: 'hosted', parts, doubleOptIn: false })
  const { id } = all(satchel.db, q.selectFrom('sign_ups').select(['id', 'key'])).find(
    (one) => one.key === key,
  )!
  const { page } = team
  await page.goto(`${satchel.url}/sign-ups/${id}/placement`)
  await page.getByRole('button', { name: 'Desk mode' }).click()
  const address = await page
    .getByRole('region', { name: 'At a desk' })
    .getByRole('link')
    .getAttribute('href')
  await team.expectAccessible()
  const before = sendings().length
  await stranger(true, async (tablet, context) => {
    await tablet.goto(address!)
    const enter = async (mail: string) => {
      await tablet.getByLabel('E-mail address').fill(mail)
      await tablet.getByLabel('Send me Wind notes.').check()
      await tablet.getByRole('button', { name: 'Send me the guide' }).click()
      await tablet.getByRole('heading', { name: 'Look into your mailbox' }).waitFor()
      // The next person finds it empty.
      await tablet.getByRole('button', { name: 'Send me the guide' }).waitFor()
      expect(await tablet.getByLabel('E-mail address').inputValue()).toBe('')
    }
    await enter('desk1@inkpost.example')
    await context.setOffline(true)
    await enter('desk2@inkpost.example')
    await enter('desk3@inkpost.example')
    await tablet.getByText('Kept on this device until there is a line: 2').waitFor()
    expect(sendings()).toHaveLength(before + 1)
    // The tablet is put away and taken out again, and there is still no line.
    await tablet.evaluate('navigator.serviceWorker.ready.then(() => {})')
    await context.setOffline(false)
    await page.goto('about:blank')
    await satchel.kill('web')
    await tablet.reload()
    await tablet.getByText('Kept on this device until there is a line: 2').waitFor()
    await tablet.getByLabel('E-mail address').fill('desk4@inkpost.example')
    expect(sendings()).toHaveLength(before + 1)
    await satchel.start('web')
    await until('all are handed in', () => sendings().length === before + 3)
    await until(
      'nothing waits',
      async () => (await tablet.locator('#desk-state').textContent()) === '',
    )
  })
  const came = sendings().slice(before)
  expect(came.map(({ normal, state }) => [normal, state])).toEqual([
    ['desk1@inkpost.example', 'pending'],
    ['desk2@inkpost.example', 'pending'],
    ['desk3@inkpost.example', 'pending'],
  ])
  const again = await fetch(address!, {
    method: 'POST',
    headers: { accept: 'application/json' },
    body: new URLSearchParams({
      ...{ 'f.mail': 'desk1@inkpost.example', 't.wind': 'yes', version: '1' },
      entry: came[0]!.work!.replace('desk ', ''),
    }),
  })
  expect(await again.json()).toMatchObject({ state: 'waits' })
  expect(sendings()).toHaveLength(before + 3)
})

test('a draft is tested by lot against what stands, judged by who confirmed, and one is kept; versions can be looked back at', async () => {
  const key = liveForm('By lot', { kind: 'hosted', parts })
  const { id } = all(satchel.db, q.selectFrom('sign_ups').select(['id', 'key'])).find(
    (one) => one.key === key,
  )!
  const { page } = team
  await page.goto(`${satchel.url}/sign-ups/${id}`)
  await page.getByRole('textbox', { name: 'Heading' }).fill('Ten beaches')
  await page.getByRole('button', { name: 'Publish 2', disabled: false }).waitFor()
  await page.getByRole('button', { name: 'More' }).click()
  await page.getByRole('menuitem', { name: 'Test the draft against 1' }).click()
  await page.getByText('Version 2 is tested from now on').waitFor()
  const test = page.getByRole('region', { name: 'Test', exact: true })
  await test.getByText('Nobody has confirmed yet').waitFor()
  // Each browser sees one of the two, and goes on seeing it.
  const seen = async (agent: string) =>
    /<h2>(\w+) beaches/.exec(
      await (await fetch(`${satchel.url}/s/${key}`, { headers: { 'user-agent': agent } })).text(),
    )![1]
  const agents = Array.from({ length: 30 }, (_, n) => `Browser ${n}`)
  const first = await Promise.all(agents.map(seen))
  expect(new Set(first)).toEqual(new Set(['Ten', 'Twelve']))
  expect(await Promise.all(agents.map(seen))).toEqual(first)
  await test
    .getByRole('row', { name: /Version 2/ })
    .getByText('Keep this one')
    .click()
  await page.getByText('version 2 stands everywhere within a minute').waitFor()
  await page.getByRole('region', { name: 'An earlier test' }).getByText('kept').waitFor()
  expect(new Set(await Promise.all(agents.map(seen)))).toEqual(new Set(['Ten']))
  await page.getByRole('button', { name: 'More' }).click()
  await page.getByRole('menuitem', { name: 'Versions…' }).click()
  const dialog = page.getByRole('dialog', { name: 'Versions' })
  await dialog.getByRole('button', { name: /^Version 1/ }).click()
  await page.frameLocator('iframe[title="Version 1"]').getByText('Twelve beaches').waitFor()
  await team.expectAccessible()
  await dialog.getByRole('button', { name: 'Edit version 1 again' }).click()
  await page.getByText('The draft is version 1 again.').waitFor()
  await page.getByRole('link', { name: 'Form', exact: true }).click()
  expect(await page.getByRole('textbox', { name: 'Heading' }).inputValue()).toBe('Twelve beaches')
})

test('a figure of the results leads to its people', async () => {
  const { sign_up_id: id } = sendings().find(({ normal }) => normal === 'tove@inkpost.example')!
  const { page } = team
  await page.goto(`${satchel.url}/sign-ups/${id}/results`)
  await page.getByRole('button', { name: /^Confirmed: 1, who/ }).click()
  const dialog = page.getByRole('dialog', { name: 'Confirmed' })
  await dialog.getByRole('link', { name: 'tove@inkpost.example' }).waitFor()
  await team.expectAccessible()
  await dialog.getByRole('button', { name: 'Close' }).click()
  await page
    .getByRole('region', { name: 'What asking costs' })
    .getByText('one thing more')
    .waitFor()
})

test('programs are kept for a look or away, mailed nothing, and let through by hand', async () => {
  const key = liveForm('Watched', { kind: 'hosted', parts })
  const post = (body: Record<string, string>) =>
    fetch(`${satchel.url}/s/${key}`, { method: 'POST', body: new URLSearchParams(body) })
  const asTyped = { 'f.mail': 'eager@inkpost.example', 't.wind': 'yes' }
  // With a token that is none of ours; and with the field that nobody sees.
  const forged = { ...asTyped, token: 'a'.repeat(40) }
  for (const more of [
    {},
    { leave_empty: 'https://spam.example' },
    { 'f.mail': 'odd@inkpost.example' },
  ])
    expect(await (await post({ ...forged, ...more })).text()).toContain('Look into your mailbox')
  // Without any, nothing is taken before they have seen it once more.
  const before = sendings().length
  expect(await (await post(asTyped)).text()).toContain('One more look, please')
  expect(sendings()).toHaveLength(before)
  const of = sendings().slice(-3)
  expect(of.map(({ state, doubt }) => [state, doubt])).toEqual([
    ['for-a-look', 'token'],
    ['kept-away', 'trap'],
    ['for-a-look', 'token'],
  ])
  const { page } = team
  await page.goto(`${satchel.url}/sign-ups/${of[0]!.sign_up_id}/results`)
  await page.getByText('eager@inkpost.example').click()
  await page.getByRole('button', { name: 'Let through' }).click()
  await page.getByText('1 sending let through').waitFor()
  await mailTo(satchel, 'eager@inkpost.example', 'Please confirm: was that you?')
  await page.getByText('odd@inkpost.example').click()
  await page.getByRole('button', { name: 'Drop', exact: true }).click()
  await page.getByText('Nothing is doubtful just now.').waitFor()
  await team.expectAccessible()
  expect(team.errors).toEqual([])
})
