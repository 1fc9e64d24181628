import { expect, test } from 'vitest'
import { askables, findAskables } from './askables'
import type { Vocabulary } from './names'
import { readRule } from './rule'
import { parseRule } from './parse'
import { startsFor } from './starts'
import { readyRule, type Catalog } from './ready'
import { writeRule } from './write'

const vocabulary: Vocabulary = {
  fields: [
    { key: 'first_name', name: 'First name', kind: 'text' },
    { key: 'town', name: 'Town', kind: 'text' },
    { key: 'birthday', name: 'Birthday', kind: 'date' },
    { key: 'flies', name: 'Flies', kind: 'choices' },
    { key: 'height', name: 'Height', kind: 'number' },
    { key: 'left_hand', name: 'Left-handed', kind: 'yesno' },
    { key: 'level', name: 'Level', kind: 'choice' },
    { key: 'site', name: 'Web site', kind: 'link' },
  ],
  lists: [{ id: 1, name: 'Wind notes' }],
  tags: [{ id: 1, name: 'club' }],
  mailings: [{ id: 1, name: 'Wind notes 47' }],
  segments: [{ id: 1, name: 'Stunt flyers, warm' }],
  sequences: [{ id: 1, name: 'First month' }],
  imports: [{ id: 1, name: 'guests.csv' }],
  signUps: [{ id: 1, name: 'Beach guide' }],
  products: ['Delta 7'],
  categories: ['stunt'],
  events: ['page view'],
  domains: [{ domain: 'inkpost.example', n: 900 }],
}
const catalog: Catalog = {
  fields: new Map(vocabulary.fields.map(({ key, name, kind }) => [key, { name, kind }])),
  lists: new Map([[1, 'Wind notes']]),
  tags: new Map([[1, 'club']]),
  goneTags: new Map(),
  mailings: new Map([[1, 'Wind notes 47']]),
  segments: new Map([
    [1, { name: 'Stunt flyers, warm', rule: { kind: 'all', of: [] }, frozen: false }],
  ]),
  sequences: new Map([[1, 'First month']]),
  imports: new Map([[1, 'guests.csv']]),
  signUps: new Map([[1, 'Beach guide']]),
  moneyDigits: 2,
  cutOf: () => null,
}
const all = askables(vocabulary)
const firstFor = (text: string) => findAskables(all, text, 8).map(({ words }) => words)[0]

test('everything one can begin with is a rule that can be asked, saved and written', () => {
  expect(all.length).toBeGreaterThan(40)
  for (const { words, rule } of all) {
    expect(readRule(JSON.parse(JSON.stringify(rule))), words).toEqual(rule)
    expect(readyRule(rule, catalog).problems, words).toEqual([])
    expect(parseRule(writeRule(rule, catalog), catalog), words).toMatchObject({ ok: true })
  }
})

test('nothing is offered twice under the same words', () => {
  const words = all.map((askable) => askable.words)
  expect(new Set(words).size).toBe(words.length)
})

test.each([
  ['bought twice', 'Bought twice or more'],
  ['town', 'Town is'],
  ['birthday', 'Birthday has its anniversary soon'],
  ['never opened', 'Never opened a mailing'],
  ['BIRTH week', 'Birthday has its anniversary soon'],
  ['spent', 'Spent at least an amount'],
  ['wind left', 'Unsubscribed from list Wind notes'],
  ['provider', 'Domain of the address'],
  ['delta', 'Bought Delta 7'],
  ['new', 'Joined in the last days'],
  ['keen', 'Engagement tier'],
])('“%s” finds “%s” first', (typed, words) => {
  expect(firstFor(typed)).toBe(words)
})

test('what nobody can ask finds nothing; nothing typed offers the first', () => {
  expect(findAskables(all, 'zzz', 8)).toEqual([])
  expect(findAskables(all, '  ', 3)).toHaveLength(3)
})

test('every starting point is a text that is read to a rule', () => {
  const starts = startsFor(vocabulary, { field: 'town', name: 'town', value: 'Say "Orrin"' })
  expect(starts.map(({ name }) => name)).toEqual([
    'Reading lately',
    'Keenest',
    'Gone quiet',
    'New',
    'Never opened',
    'Recent buyers',
    'Best by money',
    'Best by count',
    'Bought once',
    'Birthday this week',
    'In Say "Orrin"',
    'At inkpost.example',
  ])
  for (const { text } of starts) expect(parseRule(text, catalog), text).toMatchObject({ ok: true })
})

test('without orders, birthdays or people the others are offered alone', () => {
  const starts = startsFor({ ...vocabulary, fields: [], domains: [], products: [] }, null)
  expect(starts.map(({ name }) => name)).toEqual([
    'Reading lately',
    'Keenest',
    'Gone quiet',
    'New',
    'Never opened',
  ])
})
