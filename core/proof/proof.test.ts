import { test, expect } from 'vitest'
import {
  insertRow,
  newBlock,
  removeBlock,
  startingLetter,
  updateBlock,
  type Feed,
  type Letter,
} from '../letters'
import { richText } from '../letters/rich-text'
import { sentences } from '../letters/wording'
import { blockersOf, markKey, proofOf, readingOf, withOverruled, type ProofFacts } from '.'
import { madeUpProof } from './made-up'

const page = 'https://galewright.example/forecast'
function finished(): Letter {
  const letter = startingLetter()
  let { document } = letter
  document = updateBlock(document, 'title', { text: richText('The wind is back') })
  document = updateBlock(document, 'opening', {
    text: richText([
      { type: 'text', text: 'Hello ' },
      { type: 'fillIn', attrs: { expression: 'person.first_name | default: "there"' } },
      { type: 'text', text: ', five days of force 5.' },
    ]),
  })
  document = updateBlock(document, 'action', { label: 'Force by hour', href: page })
  return { ...letter, subject: 'Force 5 till Sunday', document }
}
const facts = (change: Partial<ProofFacts> = {}) =>
  madeUpProof(finished(), {
    gaps: new Map([
      ['person.first_name', 312],
      ['person.town', 1008],
    ]),
    links: new Map([[page, { status: 200, problem: null }]]),
    ...change,
  })
const titles = (change: Partial<ProofFacts>) => proofOf(facts(change)).map((mark) => mark.title)

test('a finished letter has no marks', () => {
  expect(proofOf(facts())).toEqual([])
})

test('an owner’s word lets those blockers pass that were there, and no others', () => {
  const marks = proofOf(
    facts({
      listName: null,
      audienceCount: 0,
      links: new Map([[page, { status: 404, problem: null }]]),
    }),
  )
  const by = { reason: 'They know', byName: 'Wren', at: 1, keys: marks.map(markKey) }
  const left = withOverruled(marks, by)
  expect(blockersOf(left).map(({ check }) => check)).toEqual(['audience'])
  expect(left.find(({ check }) => check === 'links')).toMatchObject({
    level: 'caution',
    detail: expect.stringContaining('Wren lets it pass: “They know”') as string,
  })
  expect(withOverruled(marks, { ...by, keys: [] })).toEqual(marks)
  // A gap that was let pass for 31 people is let pass for 30, too, however an earlier version kept it.
  const gap = (n: string) => ({
    ...{ check: 'gaps', level: 'blocker' as const, blockId: 'a', detail: '' },
    title: `${n} of 9,060 people would read “For ”`,
  })
  const kept = { ...by, keys: ['gaps|a|31 of 653 people would read “For ”'] }
  expect(withOverruled([gap('1,030')], kept)[0]!.level).toBe('caution')
  expect(markKey(gap('30'))).toBe(markKey(gap('1,031')))
  expect(withOverruled(marks, null)).toEqual(marks)
  const elsewhere = marks.map((mark) => ({ ...mark, blockId: 'other' }))
  expect(blockersOf(withOverruled(elsewhere, by))).toHaveLength(blockersOf(marks).length)
})

test('no audience', () => {
  expect(titles({ listName: null, audienceCount: 0 })).toEqual(['No audience'])
  expect(titles({ audienceCount: 0 })).toEqual(['No audience'])
  expect(titles({ segmentProblems: ['The tag asked for here is gone.'] })).toEqual([
    'The segment can’t be asked',
  ])
})

test('an empty subject', () => {
  expect(titles({ letter: { ...finished(), subject: ' ' } })).toEqual(['The subject is empty'])
})

test('links: empty, an error, no answer, not yet asked', () => {
  const linkTo = (href: string) => {
    const letter = finished()
    return { ...letter, document: updateBlock(letter.document, 'action', { href }) }
  }
  expect(titles({ letter: linkTo('') })).toEqual(['Link leads nowhere'])
  const gone = 'https://galewright.example/gale-week'
  expect(
    titles({ letter: linkTo(gone), links: new Map([[gone, { status: 404, problem: null }]]) }),
  ).toEqual(['Link answers 404'])
  expect(
    titles({
      letter: linkTo(gone),
      links: new Map([[gone, { status: null, problem: 'no such host' }]]),
    }),
  ).toEqual(['Link does not answer'])
  const waiting = proofOf(facts({ letter: linkTo(gone), links: new Map() }))
  expect(waiting).toMatchObject([{ level: 'note', title: 'A link is being looked at' }])
  expect(titles({ letter: linkTo('mailto:hello@galewright.example') })).toEqual([])
})

test('a fill-in without a fallback says how many people read a gap, and what they would read', () => {
  const letter = finished()
  const greeting = (expression: string) => ({
    ...letter,
    document: updateBlock(letter.document, 'opening', {
      text: richText([
        { type: 'text', text: 'Hello ' },
        { type: 'fillIn', attrs: { expression } },
        { type: 'text', text: ', all is well.' },
      ]),
    }),
  })
  expect(titles({ letter: greeting('person.first_name') })).toEqual([
    '312 of 9,060 people would read “Hello , all is”',
  ])
  expect(titles({ letter: greeting('person.first_nam') })).toEqual([
    'Nothing is called “person.first_nam”',
  ])
  expect(titles({ letter: greeting('person.town | nosuch') })[0]).toBe('A fill-in can’t be read')
  expect(titles({ letter: greeting('person.town'), gaps: new Map([['person.town', 0]]) })).toEqual(
    [],
  )
  expect(titles({ letter: { ...letter, subject: 'For {{ person.town }}' } })).toEqual([
    '1,008 of 9,060 people would read “For ”',
  ])
})

test('no postal address', () => {
  expect(titles({ postalAddress: '' })).toEqual(['No postal address in the footer'])
})

test('filler text left in, also that of the starting letter', () => {
  const marks = blockersOf(proofOf(facts({ letter: startingLetter() })))
  expect(marks.filter((mark) => mark.check === 'filler-text').map((mark) => mark.blockId)).toEqual([
    'title',
    'opening',
  ])
  expect(titles({ letter: { ...finished(), subject: 'Force, lorem ipsum dolor' } })).toEqual([
    'Filler text left in the subject',
  ])
  expect(titles({ letter: { ...finished(), subject: 'Force for [Town]' } })).toEqual([
    'Filler text left in the subject',
  ])
  const several = { ...finished(), subject: '[Name], [Town] and [Name]' }
  const [mark] = proofOf(facts({ letter: several })).filter((one) => one.check === 'filler-text')
  expect(mark!.detail).toBe('“[Name]”, “[Town]” were meant to be replaced.')
  const letter = finished()
  expect(
    titles({ letter: { ...letter, document: removeBlock(letter.document, 'title') } }),
  ).toEqual([])
})

test('renditions: nobody gets an empty letter, and alternatives that leave people out are told', () => {
  const letter = finished()
  const rule = { kind: 'joined' as const, when: { is: 'last-days' as const, days: 30 } }
  const other = { kind: 'joined' as const, when: { is: 'last-days' as const, days: 90 } }
  const only = (rows: number[], shownTo = { rule }) => ({
    ...letter,
    document: {
      ...letter.document,
      rows: letter.document.rows.map((row, i) => (rows.includes(i) ? { ...row, shownTo } : row)),
    },
  })
  const going = (...of: [truth: number, people: number, without: string[]][]) =>
    of.map(([truth, people, without]) => ({ truths: [truth], people, without }))
  expect(
    titles({
      letter: only([0, 1, 2]),
      renditions: going([0, 40, ['r-title', 'r-opening', 'r-action']], [1, 60, []]),
    }),
  ).toEqual(['40 people would get an empty letter', '40 people get none of 3 alternatives'])
  expect(
    titles({ letter: only([2]), renditions: going([0, 1, ['r-action']], [1, 60, []]) }),
  ).toEqual(['1 person would get no link'])
  const both = only([0])
  both.document.rows[1] = { ...both.document.rows[1]!, shownTo: { rule: other } }
  expect(
    proofOf(facts({ letter: both, renditions: going([0, 285, ['r-title', 'r-opening']]) })),
  ).toMatchObject([
    { level: 'caution', blockId: 'opening', title: '285 people get none of 2 alternatives' },
  ])
  expect(
    proofOf(
      facts({ ruleProblems: [{ id: 'r-title', problem: 'The tag asked for here is gone.' }] }),
    ),
  ).toMatchObject([
    { level: 'blocker', blockId: 'title', detail: 'The tag asked for here is gone.' },
  ])
})

test('who was asked to approve is waited for; an approval is of the letter they saw', () => {
  const asked = { ofName: 'Tove', verdict: null, words: null, lapsed: false, lapsedBy: [] }
  expect(titles({ approval: asked })).toEqual(['Waits for Tove'])
  expect(titles({ approval: { ...asked, verdict: 'approved' } })).toEqual([])
  expect(
    titles({ approval: { ...asked, verdict: 'approved', lapsed: true, lapsedBy: ['the letter'] } }),
  ).toEqual(['Changed since it was approved'])
  const refused = { ...asked, verdict: 'not yet' as const, words: 'The date is wrong.' }
  expect(proofOf(facts({ approval: refused }))).toMatchObject([
    { level: 'blocker', title: 'Tove said “not yet”', detail: 'The date is wrong.' },
  ])
})

test('picked products need enough to pick from', () => {
  const letter = finished()
  const block = newBlock('picks', 'picked')
  const document = insertRow(letter.document, 0, block)
  const offered = (many: number) =>
    titles({ letter: { ...letter, document }, offered: new Map([['picked', many]]) })
  expect(offered(0)).toEqual(['No product to recommend'])
  expect(offered(2)).toEqual(['Only 2 to recommend'])
  expect(offered(4)).toEqual(['4 products to recommend'])
  expect(offered(40)).toEqual([])
})

test('a feed needs entries, and says so when it has gone on', () => {
  const letter = finished()
  const entry = (n: number) => ({ title: `Force ${n}`, href: `${page}/${n}`, about: '', day: '' })
  const shown = (entries: number[], told: number[]) => {
    const block = { ...newBlock('feed', 'feed'), url: page, many: 2, entries: entries.map(entry) }
    const document = insertRow(letter.document, 0, block as Feed)
    const asked = [page, ...[1, 2, 3].map((n) => entry(n).href)]
    const links = new Map(asked.map((url) => [url, { status: 200, problem: null }]))
    const feeds = new Map([[page, told.map(entry)]])
    return titles({ letter: { ...letter, document }, feeds, links })
  }
  expect(shown([], [])).toEqual(['The feed shows nothing'])
  expect(shown([2, 1], [])).toEqual([])
  expect(shown([2, 1], [2, 1, 3])).toEqual([])
  expect(shown([2, 1], [3, 2, 1])).toEqual(['The feed has a newer entry'])
})

/** The finished letter with another text, or another subject. */
const saying = (text: string, subject = 'Force 5 till Sunday') => {
  const letter = finished()
  return {
    ...letter,
    subject,
    document: updateBlock(letter.document, 'opening', { text: richText(text) }),
  }
}
const found = (text: string, subject?: string) => titles({ letter: saying(text, subject) })

test.each([
  ['Come on Friday 27 November.', []],
  ['Come on Thursday 27 November.', ['“Thursday 27 November” is a Friday']],
  ['Come on Thu, November 27th, 2026.', ['“Thu, November 27th, 2026” is a Friday']],
  ['It was on 20 November.', ['“20 November” will be over']],
  ['See you on 3 January.', []],
  ['In May 2027 we fly again; 31 November is no day.', []],
  ['The sale of 2 May 2020.', ['“2 May 2020” will be over']],
])('dates: %s', (text, expected) => expect(found(text)).toEqual(expected))

test.each([
  ['The the wind is back.', ['“The the”']],
  ['That that is, is; bye bye.', []],
  ['COME AND LOOK at THIS kite now', ['Capitals in the text']],
  ['The BBC said so.', []],
  ['Look! Now! Here!', ['3 exclamation marks in the text']],
])('wording: %s', (text, expected) => expect(found(text)).toEqual(expected))

test('a subject that shouts is a caution', () => {
  const marks = proofOf(facts({ letter: saying('Fine.', 'FORCE FIVE, come!!') }))
  expect(marks.map(({ level, title }) => [level, title])).toEqual([
    ['caution', 'Capitals in the subject'],
    ['caution', '2 exclamation marks in the subject'],
  ])
})

test.each([
  ['click here', 'https://galewright.example/forecast', ['“click here” says nothing']],
  ['galewright.example', 'https://www.galewright.example/forecast', []],
  [
    'galewright.example/sale',
    'https://track.other.example/x',
    ['A link leads elsewhere than it says'],
  ],
  ['Force by hour', 'https://staging.galewright.example/', ['Link leads to a test host']],
  ['Force by hour', 'http://localhost:4500/x', ['Link leads to a test host']],
])('links: “%s” to %s', (label, href, expected) => {
  const letter = finished()
  const document = updateBlock(letter.document, 'action', { label, href })
  const links = new Map([[href, { status: 200, problem: null }]])
  expect(titles({ letter: { ...letter, document }, links })).toEqual(expected)
})

test('pictures need words, of their own and around them; text stands out; weight is bounded', () => {
  const letter = finished()
  const picture = { ...newBlock('picture', 'p'), src: '/p/a' }
  const withPicture = insertRow(letter.document, 0, picture as never)
  const brief = updateBlock(withPicture, 'opening', { text: richText('Now.') })
  expect(titles({ letter: { ...letter, document: brief } })).toEqual([
    'A picture without words',
    'Pictures, and only 8 words',
  ])
  const pale = updateBlock(letter.document, 'opening', { style: { ink: '#cccccc' } })
  expect(titles({ letter: { ...letter, document: pale } })).toEqual(['Hard to read: 1.6 to 1'])
  expect(titles({ weight: { whole: 90_000, hidden: 0 } })).toEqual([])
  expect(titles({ weight: { whole: 120_000, hidden: 3_000 } })).toEqual([
    'The letter weighs 117 KB',
    '3 KB are hidden on some screens',
  ])
})

test.each([
  ['Mr. Orrin and Dr. Tove came. They left.', 2],
  ['It opens at 7 p.m. on Friday. Come.', 2],
  ['It opens at 7 p.m. Come early.', 2],
  ['It is 3.5 m long and costs £12.50 in all.', 1],
  ['See no. 5 there, e.g. the red one, i.e. Delta.', 1],
  ['J. R. Wetherlam wrote it! Did he? Yes.', 3],
  ['Look at kite.example. It is new.', 2],
  ['So do I. We left. He said no. Then we left.', 4],
  ['Wait… what', 1],
])('“%s” is %i sentences', (text, n) => {
  expect(sentences(text)).toHaveLength(n)
  for (const { from, sentence } of sentences(text))
    expect(text.slice(from, from + sentence.length)).toBe(sentence)
})

test('how a letter reads, in figures', () => {
  const text =
    'The cat sat on the mat. It was warm and dry there, and the cat was glad of it. Then the wind came up from the sea and blew the mat away with the cat still on it.'
  const reading = readingOf(saying(text))
  expect(reading).toMatchObject({ sentences: 3, longest: 19, links: 1, places: 1 })
  expect(reading.average).toBeCloseTo(38 / 3)
  expect(reading.grade).toBeLessThan(4)
  expect(readingOf(saying('Short.')).grade).toBeNull()
  const plain = 'The cat sat. The dog ran. We go on. It was hot. The sun was up. '.repeat(3)
  expect(readingOf(saying(plain)).grade).toBeCloseTo(0.39 * 3.2 + 11.8 - 15.59, 1)
})
