import { readFileSync } from 'node:fs'
import { expect, test } from 'vitest'
import { parseRule } from './parse'
import type { Catalog } from './ready'
import { writeRule } from './write'

/** What the examples of the users' pages name. */
const catalog: Catalog = {
  fields: new Map([
    ['town', { name: 'Town', kind: 'text' }],
    ['flying_style', { name: 'Flying style', kind: 'choices' }],
    ['height', { name: 'Height', kind: 'number' }],
    ['birthday', { name: 'Birthday', kind: 'date' }],
    ['member_since', { name: 'Member since', kind: 'date' }],
    ['first_kite', { name: 'First kite', kind: 'text' }],
  ]),
  lists: new Map([[1, 'Offers']]),
  tags: new Map([[1, 'owner']]),
  goneTags: new Map(),
  mailings: new Map([[1, 'Wind notes 46']]),
  sequences: new Map([[1, 'First breeze']]),
  segments: new Map([
    [1, { name: 'Reading lately', rule: { kind: 'all', of: [] }, frozen: false }],
  ]),
  imports: new Map([[1, 'guests.csv']]),
  signUps: new Map([[1, 'Beach guide']]),
  moneyDigits: 2,
  cutOf: () => null,
}

const page = readFileSync(new URL('../../docs/users.md', import.meta.url), 'utf8')
const table = page.split('### A segment as text')[1]!.split('| one writes')[1]!.split('\n\n')[0]!
const examples = [...table.matchAll(/`([^`]+)`/g)]
  .map(([, text]) => text!)
  .filter((text) => !text.endsWith('…'))

test('there are examples', () => {
  expect(examples.length).toBeGreaterThan(40)
})

test.each(examples)('`%s` is read as it is documented', (text) => {
  const read = parseRule(text, catalog)
  if (!read.ok) throw new Error(read.message)
  expect(parseRule(writeRule(read.rule, catalog), catalog)).toEqual(read)
})
