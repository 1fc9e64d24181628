import { expect, test } from 'vitest'
import { blockNames } from '../letters'
import { askables, findAskables } from '../segments'
import { isFoundBy, otherWordsFor } from '.'

test.each([
  ['Stamps', 'reusable block'],
  ['Suppressed', 'suppression list'],
  ['Sequences', 'autoresponder'],
  ['Sequences', 'automation'],
  ['Fields, tags, lists', 'merge field'],
  ['Fields, tags, lists', 'label'],
  ['Write a letter', 'newsletter'],
  ['Results', 'analytics'],
  ['Export', 'data out'],
  ['Keys', 'shortcuts'],
  ['Recommended products', 'upsell'],
  ['Picture', 'image'],
  ['Picture', 'images'],
  ['Film', 'video'],
  ['Social links', 'elsewhere'],
  ['Standing', 'deliverability'],
])('%s is found by “%s”', (label, typed) => {
  expect(isFoundBy(label, typed)).toBe(true)
})

test.each([
  ['Picture', 'video'],
  ['Settings', 'autoresponder'],
  ['Storage', 'label'],
  ['Keys', 'z'],
])('%s is not found by “%s”', (label, typed) => {
  expect(isFoundBy(label, typed)).toBe(false)
})

test('what is typed is found as it is called, too, in any case and from the first letter', () => {
  expect(isFoundBy('Fields, tags, lists', 'TAG')).toBe(true)
  expect(isFoundBy('Calendar', 'c')).toBe(true)
  expect(isFoundBy('Calendar', '')).toBe(true)
})

test('every block has another word that it is found by, but those that are called so everywhere', () => {
  const without = Object.values(blockNames).filter((name) => otherWordsFor(name).length === 0)
  expect(without).toEqual(['Table'])
})

test.each([
  ['purchased', 'Bought'],
  ['hard bounce', 'Bounced'],
  ['opted', 'Unsubscribed'],
])('the rule looked for as “%s” is found: %s', (typed, words) => {
  const nothing = { fields: [], tags: [], lists: [], mailings: [], segments: [], events: [] }
  const all = askables({
    ...nothing,
    imports: [],
    signUps: [],
    sequences: [],
    products: [],
    categories: [],
    domains: [],
  })
  expect(findAskables(all, typed, 8).some((one) => one.words.startsWith(words))).toBe(true)
})
