import fc from 'fast-check'
import { expect, test } from 'vitest'
import { catalog, rule } from './arbitrary'
import {
  askables,
  conditionsOf,
  findAskables,
  groupPart,
  insertPart,
  isGroup,
  linesOf,
  movePart,
  parseRule,
  partAt,
  readRule,
  removePart,
  replacePart,
  startsFor,
  tidyRule,
  ungroupPart,
  writeRule,
  type Rule,
  type Vocabulary,
} from '.'

const group = rule.map((some): Rule => (isGroup(some) ? some : { kind: 'all', of: [some] }))
const sorted = (some: Rule) =>
  conditionsOf(some)
    .map((one) => JSON.stringify(one))
    .sort()
const tagged = (tagId: number): Rule => ({ kind: 'tagged', tagId })

test('moving a line keeps every condition, and leaves the old rule as it was', () => {
  fc.assert(
    fc.property(group, fc.nat(), fc.nat(), (some, a, b) => {
      const lines = linesOf(some)
      const before = JSON.stringify(some)
      const [from, to] = [lines[a % lines.length]!.path, lines[b % lines.length]!.path]
      const moved = movePart(some, from, to)
      expect(sorted(moved)).toEqual(sorted(some))
      expect(JSON.stringify(some)).toBe(before)
    }),
  )
})

test('grouping a line and taking the group apart again changes nothing', () => {
  fc.assert(
    fc.property(
      group,
      fc.nat(),
      fc.constantFrom('all' as const, 'any' as const, 'none' as const),
      (some, a, kind) => {
        const lines = linesOf(some).filter(({ path }) => path.length)
        if (lines.length === 0) return
        const { path } = lines[a % lines.length]!
        expect(ungroupPart(groupPart(some, path, kind), path)).toEqual(some)
      },
    ),
  )
})

test('what is put in stands where it was put, and taking it out restores the rule', () => {
  fc.assert(
    fc.property(group, fc.nat(), (some, a) => {
      const lines = linesOf(some).filter(({ path }) => path.length)
      const path = lines.length ? lines[a % lines.length]!.path : [0]
      const more = insertPart(some, path, tagged(3))
      expect(partAt(more, path)).toEqual(tagged(3))
      if (lines.length) expect(removePart(more, path)).toEqual(some)
      expect(replacePart(more, path, tagged(2))).not.toEqual(more)
    }),
  )
})

test('removing the last line of a group removes the group, but never the root', () => {
  const nested: Rule = {
    kind: 'all',
    of: [tagged(1), { kind: 'any', of: [{ kind: 'none', of: [tagged(2)] }] }],
  }
  expect(removePart(nested, [1, 0, 0])).toEqual({ kind: 'all', of: [tagged(1)] })
  expect(removePart({ kind: 'all', of: [tagged(1)] }, [0])).toEqual({ kind: 'all', of: [] })
})

test('a group is not moved into itself', () => {
  const nested: Rule = { kind: 'all', of: [{ kind: 'any', of: [tagged(1), tagged(2)] }, tagged(3)] }
  expect(movePart(nested, [0], [0, 1])).toEqual(nested)
  expect(movePart(nested, [1], [0, 0])).toEqual({
    kind: 'all',
    of: [{ kind: 'any', of: [tagged(3), tagged(1), tagged(2)] }],
  })
})

const vocabulary: Vocabulary = {
  fields: [...catalog.fields].map(([key, field]) => ({ key, ...field })),
  lists: [{ id: 1, name: 'Wind notes' }],
  tags: [{ id: 1, name: 'owner' }],
  mailings: [{ id: 1, name: 'Wind notes 1' }],
  segments: [{ id: 1, name: 'Early' }],
  imports: [],
  signUps: [],
  sequences: [],
  products: ['Delta 7'],
  categories: ['stunt'],
  events: ['basket'],
  domains: [{ domain: 'inkpost.example', n: 4 }],
}
const all = askables(vocabulary)

test('everything that can be asked is a rule that can be stored and written', () => {
  for (const { rule: some } of all) {
    expect(readRule(JSON.parse(JSON.stringify(some)))).toEqual(some)
    expect(parseRule(writeRule(some, catalog), catalog)).toEqual({ ok: true, rule: tidyRule(some) })
  }
})

test.each([
  ['bought twice', 'Bought twice or more'],
  ['town', 'Town is'],
  ['birthday', 'Birthday has its anniversary soon'],
  ['wind notes left', 'Unsubscribed from list Wind notes'],
  ['DELTA', 'Bought Delta 7'],
  ['money', 'Spent at least an amount'],
  ['read', 'Opened a mailing lately'],
  ['provider', 'Domain of the address'],
  ['basket', 'Did basket'],
])('who types “%s” finds “%s” first', (typed, found) => {
  expect(findAskables(all, typed, 5)[0]?.words).toBe(found)
})

test('nothing is found by what nobody could mean', () => {
  expect(findAskables(all, 'zzz', 5)).toEqual([])
  expect(findAskables(all, '', 5)).toHaveLength(5)
})

test('starting points are rules of this account, and only of what it has', () => {
  const starts = startsFor(vocabulary, { field: 'town', name: 'Town', value: 'Hale "Point"' })
  for (const { text } of starts) expect(parseRule(text, catalog), text).toMatchObject({ ok: true })
  expect(starts.map(({ name }) => name)).toContain('Bought once')
  const bare = startsFor({ fields: [], lists: [], domains: [], products: [], categories: [] }, null)
  expect(bare.map(({ name }) => name)).toEqual([
    'Reading lately',
    'Keenest',
    'Gone quiet',
    'New',
    'Never opened',
  ])
})
