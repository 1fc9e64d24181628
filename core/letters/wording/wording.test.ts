import fc from 'fast-check'
import { expect, test } from 'vitest'
import { proofOf } from '../../proof'
import { madeUpProof } from '../../proof/made-up'
import { cleanDocument } from '../clean'
import { blocksOf, emptyLetter, newBlock, rowOf, type Block, type Letter } from '../document'
import { plainInline, richText, type Inline } from '../rich-text'
import {
  isPrompt,
  LONGEST_PROMPT,
  manners,
  promptsLeft,
  proposeSubjects,
  sentences,
  taken,
  tighten,
  withPlan,
  wordCount,
  writingPlans,
  type Manner,
} from '.'
import { fillers, formal, friendlier, plainer, shorter } from './phrases'

function saying(...lines: (string | Inline[])[]): Letter {
  const empty = emptyLetter()
  const text = { ...newBlock('text', 't'), text: richText(...lines) } as Block
  return { ...empty, document: { ...empty.document, rows: [rowOf(text), ...empty.document.rows] } }
}
const wordsIn = ({ document }: Pick<Letter, 'document'>) =>
  blocksOf(document).flatMap((block) => (block.kind === 'text' ? [plainInline(block.text)] : []))[0]
/** All proposals of a manner taken, one after the other. */
function allTaken(letter: Letter, manner: Manner): string {
  let { document } = letter
  for (let i = 0; i < 100; i++) {
    const [next] = tighten(document, manner)
    if (!next) break
    document = taken(document, next)
  }
  return wordsIn({ document })!
}

test.each([
  ['shorten', 'In order to fly, you need wind.', 'To fly, you need wind.'],
  ['shorten', 'Please note that the shop is shut.', 'The shop is shut.'],
  ['shorten', 'It is really very windy.', 'It is windy.'],
  ['shorten', 'That was just it, quite.', 'That was it, quite.'],
  [
    'plainer',
    'Purchased prior to May? Utilizing it is fine.',
    'Bought before May? Using it is fine.',
  ],
  ['plainer', 'The unpurchased and re-required stay.', 'The unpurchased and re-required stay.'],
  ['friendlier', 'We are here. Do not wait, it is on.', 'We’re here. Don’t wait, it’s on.'],
  [
    'formal',
    "Hi! We’re here, and you'll see lots of kids.",
    'Hello. We are here, and you will see many children.',
  ],
  [
    'split',
    'The wind came up from the south on Friday and stayed all through the weekend without a break, and we flew everything that we had brought along with us to the beach.',
    'The wind came up from the south on Friday and stayed all through the weekend without a break. We flew everything that we had brought along with us to the beach.',
  ],
  [
    'split',
    'Short ones stay; they are fine as they are.',
    'Short ones stay; they are fine as they are.',
  ],
] as [Manner, string, string][])('%s: %s', (manner, before, after) => {
  expect(allTaken(saying(before), manner)).toBe(after)
})

test('marks and fill-ins stay where they are; nothing reaches over a fill-in', () => {
  const letter = saying([
    { type: 'text', text: 'Do not wait, ' },
    { type: 'fillIn', attrs: { expression: 'person.first_name' } },
    { type: 'text', text: '. We ' },
    { type: 'text', text: 'are here', marks: [{ type: 'bold' }] },
    { type: 'text', text: ' in order' },
    { type: 'fillIn', attrs: { expression: 'person.town' } },
    { type: 'text', text: ' to stay.' },
  ])
  const [first, second] = tighten(letter.document, 'friendlier')
  const document = taken(taken(letter.document, second!), first!)
  expect(blocksOf(document)[0]).toMatchObject({
    text: {
      content: [
        {
          content: [
            { text: 'Don’t wait, ' },
            { type: 'fillIn' },
            { text: '. We’re' },
            { text: ' here', marks: [{ type: 'bold' }] },
            { text: ' in order' },
            { type: 'fillIn' },
            { text: ' to stay.' },
          ],
        },
      ],
    },
  })
  expect(tighten(letter.document, 'shorten')).toEqual([])
})

test('a proposal about words that are not there any more changes nothing', () => {
  const letter = saying('In order to fly.')
  const [proposal] = tighten(letter.document, 'shorten')
  const other = saying('Something else is here.')
  expect(wordsIn({ document: taken(other.document, proposal!) })).toBe('Something else is here.')
})

test('whatever the text: taking proposals comes to an end, keeps fill-ins, and never overlaps', () => {
  const phrase = fc.constantFrom(
    ...Object.keys(shorter),
    ...Object.keys(plainer),
    ...Object.keys(friendlier),
    ...Object.keys(formal),
    ...fillers,
    'wind',
    'kite',
    'The',
    '; they',
    ', and we',
    '.',
    '!',
    '?',
  )
  const node = fc.oneof(
    { weight: 5, arbitrary: phrase.map((text): Inline => ({ type: 'text', text: `${text} ` })) },
    {
      weight: 1,
      arbitrary: fc.constant<Inline>({ type: 'fillIn', attrs: { expression: 'person.town' } }),
    },
    {
      weight: 1,
      arbitrary: fc
        .string({ unit: 'grapheme', minLength: 1 })
        .map((text): Inline => ({ type: 'text', text, marks: [{ type: 'bold' }] })),
    },
  )
  fc.assert(
    fc.property(
      fc.array(node, { minLength: 1, maxLength: 25 }),
      fc.constantFrom(...manners),
      (line, { key }) => {
        const document = cleanDocument(saying(line).document)!
        const proposals = tighten(document, key)
        for (const [i, one] of proposals.entries()) {
          expect(one.before).not.toContain('\uFFFC')
          if (proposals[i + 1]) expect(proposals[i + 1]!.from).toBeGreaterThanOrEqual(one.to)
        }
        let now = document
        let steps = 0
        for (
          let next = tighten(now, key)[0];
          next && steps < 200;
          next = tighten(now, key)[0], steps++
        )
          now = taken(now, next)
        expect(steps).toBeLessThan(200)
        const fills = (of: typeof now) => JSON.stringify(of).split('"fillIn"').length
        expect(fills(now)).toBe(fills(document))
        const cleaned = cleanDocument(JSON.parse(JSON.stringify(now)))!
        expect(wordsIn({ document: cleaned })).toBe(wordsIn({ document: now })?.normalize('NFC'))
      },
    ),
    { numRuns: 300 },
  )
})

test('no way to say it leads in a circle', () => {
  for (const [name, map] of Object.entries({ shorter, plainer, friendlier, formal }))
    for (const [from, to] of Object.entries(map)) {
      expect(Object.hasOwn(map, to), `${name}: ${from} → ${to}`).toBe(false)
      expect(from).toBe(from.toLowerCase())
    }
})

test('sentences and words', () => {
  expect(sentences('It blows. Does it? 3.5 bft!').map(({ sentence }) => sentence.trim())).toEqual([
    'It blows.',
    'Does it?',
    '3.5 bft!',
  ])
  expect(wordCount('It’s a well-kept 40 m line.')).toBe(6)
})

test('every plan puts prompts above the footer that the proof finds until they are written over', () => {
  for (const plan of writingPlans) {
    let ids = 0
    const empty = emptyLetter()
    const document = withPlan(empty.document, plan, () => `p${ids++}`)
    expect(blocksOf(document).map(({ kind }) => kind)).toEqual([
      ...plan.steps.map(({ kind }) => kind),
      'footer',
    ])
    expect(promptsLeft(document)).toBe(plan.steps.length)
    for (const { prompt } of plan.steps) {
      expect(isPrompt(`[${prompt}]`)).toBe(true)
      expect(prompt.length + 2).toBeLessThanOrEqual(LONGEST_PROMPT)
    }
    const marks = proofOf(madeUpProof({ ...empty, document })).filter(
      ({ check }) => check === 'filler-text',
    )
    expect(marks.length).toBe(plan.steps.length)
    expect(cleanDocument(document)).toEqual(document)
  }
})

test('a plan keeps what is written and takes what is empty', () => {
  const letter = saying('Written.')
  const withEmpty = {
    ...letter.document,
    rows: [rowOf(newBlock('text', 'e')), ...letter.document.rows],
  }
  const document = withPlan(withEmpty, writingPlans[2]!, () => `p${Math.random()}`.replace('.', ''))
  expect(document.rows[0]!.columns[0]!.blocks[0]!.id).toBe('t')
  expect(document.rows).toHaveLength(1 + writingPlans[2]!.steps.length + 1)
})

test('subjects come from the letter’s own words, never from filler text', () => {
  const letter = saying(
    [
      { type: 'text', text: 'Hello ' },
      { type: 'fillIn', attrs: { expression: 'person.first_name' } },
      { type: 'text', text: ',' },
    ],
    'We have 12 places until Friday. Will you come along?',
  )
  const title = { ...newBlock('heading', 'h'), text: richText('Sewing sails that last') } as Block
  const two = ['Cutting', 'Hemming'].map((words, i) =>
    rowOf({ ...newBlock('heading', `h${i}`), level: 2, text: richText(words) } as Block),
  )
  letter.document.rows.unshift(rowOf(title), ...two)
  const proposals = proposeSubjects({ ...letter, subject: 'sewing sails that last!' })
  expect(proposals.map(({ subject }) => subject)).toEqual([
    'Sewing sails that last: cutting',
    'Cutting and hemming',
    'Will you come along?',
    'We have 12 places until Friday',
  ])
  for (const { subject } of proposals) expect(subject.length).toBeLessThanOrEqual(60)
  expect(proposeSubjects(saying('[What this is about]'))).toEqual([])
  expect(proposeSubjects(emptyLetter())).toEqual([])
})
