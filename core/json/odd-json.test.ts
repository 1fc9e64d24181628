import fc from 'fast-check'
import { expect, test } from 'vitest'
import { jsonProblem } from '.'
import { plainPlan, readPlan } from '../dispatch'
import { cleanDocument, defaultLetterhead, readLetterhead } from '../letters'
import { blockKinds, newBlock, rowOf, type Block } from '../letters/document'
import { templates } from '../letters/templates'
import { readRule } from '../segments'
import { catalog, rule } from '../segments/arbitrary'
import { readOwnSender } from '../senders'
import { freshStarts, type NamedLetter, readSequenceFile, sequenceFile } from '../sequences'
import { readMap } from '../sequences/map'
import { mapOfTemplate, sequenceTemplates } from '../sequences/templates'
import { readForm } from '../sign-ups'
import { newPart, partKinds } from '../sign-ups/form'

/**
 * What JSON can put where something else is meant. Those of the last line look like values until they are
 * made into text or numbers, which throws.
 */
const odd: readonly unknown[] = [
  ...[null, true, false, 0, -1, 0.5, 1e300, '', 'odd', '__proto__', 'x'.repeat(3_000)],
  ...[[], [[]], ['odd', 'odd'], [null], {}, { kind: 'constructor' }, { length: 1e9 }],
  ...[{ toString: [], valueOf: [] }, [{ toString: null }], { toJSON: 'odd' }],
]

const noBlocks = { version: 1 as const, rows: [] }
const entry = { title: 'Wind', href: 'https://kites.example/', about: 'Up', day: '2026-11-30' }

const kinds = {
  'a letter': {
    read: cleanDocument,
    some: [
      { ...templates[0]!.letter.document, rows: templates[0]!.letter.document.rows.slice(0, 2) },
      ...blockKinds.map(({ kind }) => ({ version: 1, rows: [rowOf(newBlock(kind, kind))] })),
      { version: 1, rows: [rowOf({ ...newBlock('feed', 'feed'), entries: [entry] } as Block)] },
    ],
  },
  'a letterhead': { read: readLetterhead, some: [defaultLetterhead] },
  'a form': {
    read: readForm,
    some: [
      {
        ...{ kind: 'hosted', languages: ['en', 'de'], sites: ['kites.example'], tags: ['new'] },
        ...{
          values: [{ field: 'town', value: 'Orrin' }],
          tell: { how: 'each', to: 'a@b.example' },
        },
        ...{ placement: { only: ['/a'], from: ['b'] }, thanks: { title: { en: 'Thanks' } } },
        parts: partKinds.map(({ kind }) => newPart(kind, kind)),
      },
    ],
  },
  'a rule': { read: readRule, some: fc.sample(rule, { numRuns: 60, seed: 7 }) },
  'a map of steps': {
    read: readMap,
    some: [
      ...sequenceTemplates.map((one) => mapOfTemplate(one, () => 1)),
      {
        start: { by: Object.values(freshStarts), again: { is: 'never' }, rule: null },
        ...{ first: null, steps: {} },
      },
    ],
  },
  'a file of a sequence': {
    read(json: unknown) {
      const got = readSequenceFile(JSON.stringify(json), catalog)
      if ('problem' in got) return null
      const letters = new Map(got.letters.map((letter, n) => [n + 1, letter]))
      return sequenceFile({ ...got, letters }, catalog)
    },
    some: sequenceTemplates.slice(0, 4).map((one) => {
      const letters = new Map<number, NamedLetter>()
      const map = mapOfTemplate(one, (letter) => {
        letters.set(letters.size + 1, { ...letter, document: noBlocks, name: letter.subject })
        return letters.size
      })
      return sequenceFile({ name: one.name, listId: 1, map, letters }, catalog)
    }),
  },
  'a plan': {
    read: readPlan,
    some: [
      plainPlan,
      {
        ...{ pace: { is: 'over', hours: 3 }, variants: [{ subject: 'One' }, { subject: 'Two' }] },
        ...{
          providers: [{ key: 'orrin', perHour: 10 }],
          goal: { is: 'link', what: 'https://a.b' },
        },
      },
    ],
  },
  'a sender': { read: readOwnSender, some: [{ name: 'Wren', local: 'wren', replies: 'account' }] },
} satisfies Record<string, { read: (json: unknown) => unknown; some: readonly unknown[] }>

test.each(Object.entries(kinds))(
  '%s with anything odd in any place is none or is mended, and is read the same again',
  (_, { read, some }: { read: (json: unknown) => unknown; some: readonly unknown[] }) => {
    for (const whole of some)
      for (const given of withOdd(JSON.parse(JSON.stringify(whole)))) {
        const got = JSON.parse(JSON.stringify(read(given)))
        if (got !== null) expect(JSON.parse(JSON.stringify(read(got)))).toEqual(got)
      }
  },
)

/** The value with each odd one in place of each of its parts, one at a time. */
function* withOdd(value: unknown): Generator<unknown> {
  yield* odd
  if (typeof value !== 'object' || value === null) return
  for (const [key, part] of Object.entries(value))
    for (const changed of withOdd(part))
      yield Array.isArray(value) ? value.with(Number(key), changed) : { ...value, [key]: changed }
}

test('what is nested without end, or hides how it is made into text, is found with its place', () => {
  const deep = JSON.parse(`${'['.repeat(50_000)}${']'.repeat(50_000)}`) as unknown
  expect(jsonProblem({ a: deep })).toEqual({
    path: expect.stringMatching(/^a\[0\]/),
    message: 'It is nested too deep.',
  })
  const text = `{"satchel":"sequence","version":1,"steps":{"a":{"kind":"mail","letter":${'['.repeat(50_000)}${']'.repeat(50_000)}}}}`
  expect(readSequenceFile(text, catalog)).toEqual({ problem: expect.stringMatching(/too deep/) })
  expect(jsonProblem({ a: [{}, { toString: 1 }] })).toMatchObject({ path: 'a[1].toString' })
  for (const { some } of Object.values(kinds))
    for (const one of some) expect(jsonProblem(JSON.parse(JSON.stringify(one)))).toBeNull()
})
