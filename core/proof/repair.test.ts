import { expect, test } from 'vitest'
import {
  blocksOf,
  hasFooter,
  newBlock,
  insertRow,
  plainInline,
  startingLetter,
  updateBlock,
  type Letter,
} from '../letters'
import { richText } from '../letters/rich-text'
import { proofOf, repaired, type Mark, type ProofFacts } from '.'
import { madeUpProof } from './made-up'

const href = 'https://galewright.example/kites'
/** A letter with a text, a button and a footer. */
function letterWith({
  text = richText('Kites for the weekend.'),
  subject = 'Kites for the weekend',
} = {}): Letter {
  let { document } = startingLetter()
  document = updateBlock(document, 'title', { text: richText('Kites') })
  document = updateBlock(document, 'opening', { text })
  document = updateBlock(document, 'action', { label: 'See the kites', href })
  return { subject, previewText: '', document }
}
const facts = (letter: Letter, change: Partial<ProofFacts> = {}) =>
  madeUpProof(letter, { links: new Map([[href, { status: 200, problem: null }]]), ...change })
const marked = (letter: Letter, check: string, change?: Partial<ProofFacts>) =>
  proofOf(facts(letter, change)).filter((mark) => mark.check === check)
/** All texts of a letter in one. */
const saying = ({ subject, document }: Letter) =>
  [
    subject,
    ...blocksOf(document).map((block) =>
      'text' in block ? plainInline(block.text, (e) => `{${e}}`) : '',
    ),
  ].join(' ')
let ids = 0
const mend = (letter: Letter, mark: Mark, n = 0) =>
  repaired(letter, mark, mark.repairs![n]!.change, () => `made${++ids}`)

const bold = { type: 'bold' as const }
const misspelt = { misspelt: [{ word: 'forcast', suggestions: ['forecast', 'forecasts'] }] }
const cases: [
  what: string,
  letter: Letter,
  check: string,
  change: Partial<ProofFacts>,
  then: string,
][] = [
  [
    'a word twice',
    letterWith({ text: richText('Mind the the line.') }),
    'wording',
    {},
    'Mind the line.',
  ],
  ['capitals', letterWith({ subject: 'KITES FOREVER' }), 'wording', {}, 'Kites forever'],
  ['calls', letterWith({ subject: 'Kites! Wind! Now!' }), 'wording', {}, 'Kites. Wind. Now!'],
  [
    'a weekday',
    letterWith({ text: richText('Come on Monday 27 November.') }),
    'dates',
    {},
    'Friday 27 November',
  ],
  [
    'spelling',
    letterWith({ text: richText('The forcast is up.') }),
    'spelling',
    misspelt,
    'The forecast is up.',
  ],
  [
    'spelling in the subject',
    letterWith({ subject: 'Kites: forcast' }),
    'spelling',
    misspelt,
    'Kites: forecast',
  ],
  [
    'a misspelt fill-in',
    letterWith({
      text: richText([
        { type: 'fillIn', attrs: { expression: 'person.frist_name | default: "you"' } },
      ]),
    }),
    'gaps',
    {},
    '{person.first_name | default: "you"}',
  ],
  [
    'a gap',
    letterWith({ subject: 'Kites for {{ person.first_name }}' }),
    'gaps',
    { gaps: new Map([['person.first_name', 40]]) },
    'Kites for {{ person.first_name | default: "there" }}',
  ],
]

test.each(cases)(
  '%s is mended in one click, and its mark goes',
  (_, letter, check, change, then) => {
    const [mark] = marked(letter, check, change)
    expect(mark!.repairs!.length).toBeGreaterThan(0)
    const next = mend(letter, mark!)
    expect(saying(next)).toContain(then)
    expect(marked(next, check, change).map(({ title }) => title)).not.toContain(mark!.title)
  },
)

test('a link leads where it says; a footer is put at the end; an empty block goes', () => {
  const link = { type: 'link' as const, attrs: { href: 'https://elsewhere.example/x' } }
  const shown = letterWith({
    text: richText([{ type: 'text', text: 'galewright.example/kites', marks: [link] }]),
  })
  const [mark] = marked(shown, 'link-words')
  expect(JSON.stringify(mend(shown, mark!).document)).toContain(
    '"href":"https://galewright.example/kites"',
  )
  expect(marked(mend(shown, mark!), 'link-words')).toEqual([])

  const whole = letterWith()
  const bare = {
    ...whole,
    document: { ...whole.document, rows: whole.document.rows.filter((row) => !hasFooter(row)) },
  }
  const ended = mend(bare, marked(bare, 'postal-address')[0]!)
  expect(blocksOf(ended.document).at(-1)!.kind).toBe('footer')
  expect(marked(ended, 'postal-address')).toEqual([])

  const empty = { ...whole, document: insertRow(whole.document, 1, newBlock('heading', 'hollow')) }
  const [hollow] = marked(empty, 'filler-text')
  expect(mend(empty, hollow!).document).toEqual(whole.document)
})

test('no repair is offered that would change nothing, and one whose place is gone does nothing', () => {
  const parted = letterWith({
    text: richText([
      { type: 'text', text: 'Mind the ' },
      { type: 'text', text: 'the', marks: [bold] },
      { type: 'text', text: ' line.' },
    ]),
  })
  expect(marked(parted, 'wording')).toMatchObject([{ repairs: [] }])
  const letter = letterWith({ text: richText('Mind the the line.') })
  const [mark] = marked(letter, 'wording')
  expect(mend(letterWith(), mark!)).toEqual(letterWith())
  expect(repaired(letter, { blockId: 'gone' }, { is: 'remove' }, () => 'x')).toEqual(letter)
  expect(repaired(letter, mark!, { is: 'own-word', word: 'galewright' }, () => 'x')).toBe(letter)
})

test('words and shapes that filters score: alone a note, together a blocker, in the subject double', () => {
  const points = (text: string, subject?: string) =>
    marked(letterWith({ text: richText(text), ...(subject ? { subject } : {}) }), 'filters').map(
      ({ level, title }) => `${level}: ${title}`,
    )
  expect(points('Wind on Friday.')).toEqual([])
  expect(points('Your free gift waits.')).toEqual([
    'note: Filters may hold 1 points against the words',
  ])
  expect(points('Act now and make money, risk-free.')).toEqual([
    'blocker: Filters may hold 4 points against the words',
  ])
  expect(points('Wind.', 'Re: your order')).toEqual([
    'blocker: Filters may hold 4 points against the words',
  ])
  expect(points('Re: in a text is nothing.')).toEqual([])
})

test('a shortened link is told', () => {
  const letter = letterWith()
  const short = {
    ...letter,
    document: updateBlock(letter.document, 'action', { href: 'https://bit.ly/x1' }),
  }
  const found = { title: 'A shortened link', level: 'blocker' }
  expect(marked(short, 'filters')).toMatchObject([{ ...found, blockId: 'action' }])
  const said = (text: string) => marked(letterWith({ text: richText(text) }), 'filters')
  expect(said('Look at bit.ly/x1 for more.')).toMatchObject([found])
  expect(said('We write about bit.ly and habit.ly/x.')).toEqual([])
  const numbers = { title: 'An address of numbers', level: 'blocker' }
  expect(said('It stands at http://203.0.113.9/kites.')).toMatchObject([numbers])
  expect(said('It stands at https://[2001:db8::1]/kites.')).toMatchObject([numbers])
  expect(said('Version 10.2.3.4 is out, see https://10.2.3.4.example/.')).toEqual([])
  const direct = updateBlock(letter.document, 'action', { href: 'http://203.0.113.9/kites' })
  expect(marked({ ...letter, document: direct }, 'filters')).toMatchObject([numbers])
})

test('the first link takes up the subject, by its words, its address or what stands before it', () => {
  const asked = (subject: string) => marked(letterWith({ subject }), 'promise').length
  expect(asked('A kite for you')).toBe(0)
  expect(asked('For the weekend')).toBe(0)
  expect(asked('Your invoice is ready')).toBe(1)
  expect(asked('{{ person.first_name }}, it is you')).toBe(0)
})

test('an audience far from usual, other mail within two days, and who is spared', () => {
  const people = { earlier: [9000, 8800, 9200], overlaps: [], spared: null }
  const told = (change: object, audienceCount = 9060) =>
    marked(letterWith(), 'audience', { audienceCount, people: { ...people, ...change } }).map(
      ({ level, title }) => `${level}: ${title}`,
    )
  expect(told({})).toEqual([])
  expect(told({}, 900)).toEqual(['caution: 900 people, and usually it is about 9,000'])
  expect(told({ earlier: [90, 100] })).toEqual([])
  expect(told({ earlier: [2000, 1900, 2100] })).toHaveLength(1)
  const overlap = { name: 'Offer', at: 0, when: 'Tuesday', people: 812 }
  expect(told({ overlaps: [overlap] })).toEqual([
    'caution: 812 of 9,060 get “Offer” within 48 hours, too',
  ])
  expect(told({ overlaps: [{ ...overlap, people: 30 }] })).toEqual([])
  expect(told({ spared: 12 })).toEqual(['note: 12 are spared by the frequency cap'])
})
