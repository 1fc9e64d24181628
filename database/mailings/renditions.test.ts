import fc from 'fast-check'
import { beforeEach, expect, test } from 'vitest'
import { richText } from '../../core/letters/rich-text'
import { conditionsOf, type LetterDocument } from '../../core/letters'
import type { Rule } from '../../core/segments'
import { madeUpAccount, somebody } from '../made-up'
import { suppressPeople } from '../people'
import type { Database } from '../query'
import { countTruths, readerOf, renditionsFor, truthsOf } from './renditions'
import { countMembers } from '../segments'

const now = Date.UTC(2026, 10, 23)
const town = (name: string): Rule => ({
  kind: 'field',
  key: 'first_name',
  test: { is: 'equal', text: name },
})
const rules = [
  town('Tove'),
  { kind: 'none', of: [town('Ivo')] } as Rule,
  { kind: 'segment', segmentId: 99 } as Rule,
]
let db: Database
let list: number
beforeEach(() => void ({ db, list } = madeUpAccount()))

test('every rule holds for whom it holds alone, and the counts sum to the audience', () => {
  fc.assert(
    fc.property(
      fc.array(fc.constantFrom('Tove', 'Ivo', 'Orla', ''), { maxLength: 20 }),
      (names) => {
        ;({ db, list } = madeUpAccount())
        const ids = names.map((first_name, i) =>
          somebody(db, `p${i}`, { list, values: first_name ? { first_name } : {} }),
        )
        const counts = countTruths(db, { listId: list, rule: null }, rules, now)
        expect(counts.reduce((sum, { people }) => sum + people, 0)).toBe(names.length)
        rules.forEach((rule, n) => {
          const held = counts.filter(({ truth }) => Math.floor(truth / 2 ** n) % 2 === 1)
          expect(held.reduce((sum, { people }) => sum + people, 0)).toBe(
            countMembers(db, rule, now),
          )
        })
        const truths = truthsOf(db, ids, rules, now)
        for (const { truth, people } of counts)
          expect([...truths.values()].filter((one) => one === truth)).toHaveLength(people)
      },
    ),
    { numRuns: 30 },
  )
})

test('without a rule everybody is the same; who is suppressed is nobody', () => {
  somebody(db, 'tove', { list })
  const ivo = somebody(db, 'ivo', { list })
  somebody(db, 'elsewhere')
  suppressPeople(db, [ivo], 'asked', now)
  expect(countTruths(db, { listId: list, rule: null }, [], now)).toEqual([{ truth: 0, people: 1 }])
  expect(countTruths(db, { listId: list, rule: town('Nobody') }, [], now)).toEqual([])
})

test('a letter’s renditions, and somebody who reads each', () => {
  for (const [i, first_name] of ['Tove', 'Ivo', 'Tove', 'Orla'].entries())
    somebody(db, `p${i}`, { list, values: { first_name } })
  const document: LetterDocument = {
    version: 1,
    rows: [
      { id: 'a', shownTo: { rule: town('Tove') }, columns: [column('a')] },
      { id: 'b', shownTo: { rest: true }, columns: [column('b')] },
    ],
  }
  const audience = { listId: list, rule: null }
  const renditions = renditionsFor(db, document, audience, now)
  expect(renditions).toEqual([
    { truths: [0], people: 2, without: ['a'] },
    { truths: [1], people: 2, without: ['b'] },
  ])
  const { rules: asked } = conditionsOf(document)
  const readers = (truths: number[]) =>
    [0, 1, 2].map((offset) => readerOf(db, audience, asked, truths, now, offset))
  expect(readers([1])).toEqual([1, 3, undefined])
  expect(readers([0])).toEqual([2, 4, undefined])
})

function column(id: string) {
  return { share: 1, blocks: [{ id: `t${id}`, kind: 'text' as const, text: richText(id) }] }
}
