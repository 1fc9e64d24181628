import { sql } from 'kysely'
import { Liquid } from 'liquidjs'
import mjml2html from 'mjml'
import {
  compileLetter,
  fillFor,
  letterSource,
  personContext,
  shownFor,
} from '../core/letters/rendering'
import {
  conditionsOf,
  defaultLetterhead,
  linksOf,
  truthOf,
  type Block,
  type Letter,
  type Row,
} from '../core/letters'
import { richText } from '../core/letters/rich-text'
import { bytesOf, makeToken, mouldMessage, pourMessage } from '../core/delivery'
import { ruleToSql, type Rule } from '../core/segments'
import { closeDatabase, openDatabase } from '../database'
import { countTruths } from '../database/mailings'
import type { Measure } from './harness'
import { millionFolder, NOW } from './million'
import { all, raw } from '../database/query'
import { askedAt, readyNow } from '../database/segments'

const FILL_INS = 20
const RULES = 6
const LINKS = 24
const MERGED = 3_000
const key = Buffer.alloc(32, 7)
const frame = {
  letterhead: defaultLetterhead,
  postalAddress: '1 Slipway, Sandreach',
  senderName: 'Bench',
  listName: 'Wind notes',
  footer: { language: 'en', unsubscribe: 'Unsubscribe', yourPage: 'Change what you get' },
  url: 'https://mail.bench.example',
}

/** Recipients merged a second from the compiled letter, against rendering the same Liquid and HTML whole for each. */
export const merges: Measure = {
  name: 'merge',
  unit: 'recipients/s',
  promise: { atLeast: 10 },
  runs: 3,
  async run() {
    const letter = benchLetter()
    const compiled = await compileLetter(letter, frame)
    const mould = mouldMessage(
      1,
      compiled.parts,
      {
        name: 'Bench',
        address: 'hello@bench.example',
        url: frame.url,
        list: { key: 'wind', name: 'Wind notes' },
        replies: 'sender',
      },
      key,
    )
    let bytes = 0
    const ours = rate(MERGED, (i) => {
      const { address, values, truth } = reader(i)
      const context = personContext(
        { address, values },
        { list: 'Wind notes', sender: 'Bench', mailing: 'm' },
      )
      const shown = shownFor(compiled, truthOf(truth, RULES))
      const { raw } = pourMessage(
        mould,
        { personId: i + 1, address, name: '' },
        fillFor(compiled, context),
        NOW,
        shown,
      )
      bytes += bytesOf(raw).bytes.length
    })
    const liquid = new Liquid({ outputEscape: 'escape' })
    const source = await liquidSource(letter)
    const links = linksOf(letter.document).map(({ url }) => url)
    const count = Math.ceil(MERGED / 20)
    const reference = rate(count, (i) => {
      const { address, values, truth } = reader(i)
      const token = makeToken(key, 'click', 1, i + 1)
      const signed = links.map((_, n) => `${frame.url}/c/${token}/${n}`)
      const rules = Object.fromEntries(truthOf(truth, RULES).map((holds, n) => [`r${n}`, holds]))
      bytes += liquid.parseAndRenderSync(source, {
        person: { ...values, address },
        link: signed,
        ...rules,
      }).length
    })
    if (bytes === 0) throw new Error('Nothing was merged.')
    return { ours: Math.round(ours), reference: Math.round(reference) }
  },
}

/** A document to final HTML, against MJML alone on the equivalent source. */
export const renders: Measure = {
  name: 'render',
  unit: 'ms',
  promise: { atMost: 1.3 },
  runs: 5,
  async run() {
    const letter = benchLetter()
    const mjml = await letterSource(letter, frame, 'mjml')
    const [ours, reference] = [[] as number[], [] as number[]]
    for (let i = 0; i < 12; i++) {
      reference.push(await timed(() => mjml2html(mjml, { validationLevel: 'soft' })))
      ours.push(await timed(() => compileLetter(letter, frame)))
    }
    return { ours: median(ours), reference: median(reference) }
  },
}

/** The renditions over a million people and eight rules, against plain SQL that evaluates the eight conditions for all. */
export const rendition: Measure = {
  name: 'renditions',
  unit: 'ms',
  promise: { atMost: 1.5 },
  runs: 3,
  run() {
    const db = openDatabase(millionFolder(), { reading: true })
    const asked = askedAt(db, NOW)
    const conditions = rules(8).map((rule) => ruleToSql(readyNow(db, rule), asked))
    const sums = sql.join(
      conditions.map((condition, n) => sql`sum(${condition}) as ${sql.ref(`n${n}`)}`),
    )
    const audience = { listId: 1, rule: null }
    const plain = () =>
      all(
        db,
        raw(sql`select ${sums} from people join facts on facts.person_id = people.id
        where people.id in (select person_id from subscriptions where list_id = 1 and state = 'subscribed')
          and people.id not in (select person_id from set_aside)`),
      )
    const mine = () => countTruths(db, audience, rules(8), NOW)
    plain()
    const reference = clocked(plain)
    const ours = clocked(mine)
    const people = mine().reduce((sum, one) => sum + one.people, 0)
    closeDatabase(db)
    return Promise.resolve({ ours, reference, notes: { people } })
  },
}

/** A letter with twenty fill-ins, six rules and two dozen links. */
function benchLetter(): Letter {
  const rows: Row[] = Array.from({ length: LINKS / 2 }, (_, i) => {
    const fill = (n: number) => ({
      type: 'fillIn' as const,
      attrs: { expression: `person.f${n % FILL_INS} | default: "you"` },
    })
    const blocks: Block[] = [
      {
        id: `h${i}`,
        kind: 'heading',
        level: 2,
        align: 'left',
        text: richText([{ type: 'text', text: 'For ' }, fill(2 * i)]),
      },
      {
        id: `t${i}`,
        kind: 'text',
        text: richText([
          { type: 'text', text: 'Five days of steady force 5 are on the way to ' },
          fill(2 * i + 1),
          {
            type: 'text',
            text: '. Here is what we would fly, and what we have taken a fifth off. '.repeat(6),
          },
          {
            type: 'text',
            text: 'More',
            marks: [{ type: 'link', attrs: { href: `https://galewright.example/t${i}` } }],
          },
        ]),
      },
      {
        id: `b${i}`,
        kind: 'button',
        label: 'See it',
        href: `https://galewright.example/b${i}`,
        align: 'left',
      },
    ]
    return {
      id: `r${i}`,
      ...(i < RULES ? { shownTo: { rule: rules(RULES)[i]! } } : {}),
      columns: [{ share: 1, blocks }],
    }
  })
  const footer: Block = { id: 'footer', kind: 'footer', text: richText('You asked for it.') }
  const document = {
    version: 1 as const,
    rows: [...rows, { id: 'rf', columns: [{ share: 1, blocks: [footer] }] }],
  }
  if (conditionsOf(document).rules.length !== RULES) throw new Error('Six rules are asked for.')
  return { subject: 'For {{ person.f0 | default: "you" }}', previewText: '', document }
}

/** The same letter as HTML whose every difference is Liquid. */
async function liquidSource(letter: Letter): Promise<string> {
  let n = 0
  let rule = 0
  return (await letterSource(letter, frame, 'html'))
    .replaceAll('&quot;', '"')
    .replace(/<!-- for some readers -->/g, () => `{% if r${rule++} %}`)
    .replaceAll('<!-- for everybody again -->', '{% endif %}')
    .replace(/href="https:\/\/galewright\.example[^"]*"/g, () => `href="{{ link[${n++}] }}"`)
}

function rules(many: number): Rule[] {
  return Array.from({ length: many }, (_, i): Rule => {
    const days = 20 + 15 * i
    return i % 2
      ? { kind: 'joined', when: { is: 'last-days', days } }
      : {
          kind: 'mail',
          did: 'opened',
          of: { which: 'any' },
          times: { is: 'at-least', n: 1 },
          withinDays: days,
        }
  })
}

function reader(i: number) {
  const values = Object.fromEntries(
    Array.from({ length: FILL_INS }, (_, n) => [
      `f${n}`,
      i % 7 === n % 7 ? '' : `Tove ${i} of ${n}`,
    ]),
  )
  return { address: `reader${i}@inkpost.example`, values, truth: i % 2 ** RULES }
}

function rate(count: number, work: (i: number) => void): number {
  for (let i = 0; i < Math.min(50, count); i++) work(i)
  const began = performance.now()
  for (let i = 0; i < count; i++) work(i)
  return (count * 1_000) / (performance.now() - began)
}

async function timed(work: () => Promise<unknown>): Promise<number> {
  const began = performance.now()
  await work()
  return performance.now() - began
}

function clocked(work: () => unknown): number {
  const began = performance.now()
  work()
  return Math.round(performance.now() - began)
}

function median(numbers: number[]): number {
  return Math.round(numbers.sort((a, b) => a - b)[Math.floor(numbers.length / 2)]! * 10) / 10
}
