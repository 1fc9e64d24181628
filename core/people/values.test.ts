import { test, expect } from 'vitest'
import { isFiguresOnly, readNumber, readYesNo } from './values'
import { splitName } from './names'
import { fieldKeyFor, readFieldValue } from './fields'
import { nextSubscription, type SubscriptionState } from './subscription'

test('numbers with a decimal comma, with grouping, and no numbers', () => {
  expect(readNumber('13,69', ',')).toBe(13.69)
  expect(readNumber('1.234,5', ',')).toBe(1234.5)
  expect(readNumber('1,234.5', '.')).toBe(1234.5)
  expect(readNumber('12a', '.')).toBeNull()
})

test.each([
  ['£12', 12],
  ['12 €', 12],
  ['EUR 12.50', 12.5],
  ['1,000', 1000],
  ['1,234,567.8', 1234567.8],
  ['12 %', 12],
  ['-£3.20', -3.2],
  ['1\u202f234', 1234],
  ["1'234.5", 1234.5],
])('%s is a number', (text, value) => {
  expect(readNumber(text, '.')).toBe(value)
})

test.each(['13,69', '1,23,456', '12,5', 'EUR', '%', '', '1.2.3', 'ABCD 12'])(
  '“%s” is no number with a decimal point',
  (text) => {
    expect(readNumber(text, '.')).toBeNull()
  },
)

test('figures with a leading nought, a plus or spaces are no numbers by themselves', () => {
  expect(['07700900123', '+447700900123', '020 7946 0123', '12-34'].every(isFiguresOnly)).toBe(true)
  expect(['0', '0.5', '-3', '12 %', '1,000'].some(isFiguresOnly)).toBe(false)
})

test('a column may have words of its own for yes and no', () => {
  const words = { yes: ['wants it'], no: ['rather not'] }
  expect(['Wants it', 'rather not', 'yes'].map((word) => readYesNo(word, words))).toEqual([
    true,
    false,
    null,
  ])
})

test('quotation marks around labels go', () => {
  expect(readFieldValue("\"press\", 'owner', “club”, it's", 'choices', { separator: ',' })).toEqual(
    ['press', 'owner', 'club', "it's"],
  )
})

test('yes and no', () => {
  expect(['yes', 'Yes', '1', 'no', '0', 'maybe'].map((word) => readYesNo(word))).toEqual([
    true,
    true,
    true,
    false,
    false,
    null,
  ])
})

test('whole names are split', () => {
  expect(splitName('Bram Prynne-Marsh')).toEqual({ first: 'Bram', last: 'Prynne-Marsh' })
  expect(splitName('Prynne-Marsh, Bram')).toEqual({ first: 'Bram', last: 'Prynne-Marsh' })
  expect(splitName('Noor van der Castellane')).toEqual({
    first: 'Noor',
    last: 'van der Castellane',
  })
  expect(splitName('Orla')).toEqual({ first: 'Orla', last: '' })
})

test('cells become values of their field, or are told apart from empty ones', () => {
  expect(readFieldValue('power|indoor|power', 'choices', { separator: '|' })).toEqual([
    'power',
    'indoor',
  ])
  expect(readFieldValue(' ', 'number')).toBeNull()
  expect(readFieldValue('many', 'number')).toBeUndefined()
  expect(readFieldValue('javascript:alert(1)', 'link')).toBeUndefined()
})

test('keys of fields are plain and never taken twice', () => {
  expect(fieldKeyFor('Member since')).toBe('member_since')
  expect(fieldKeyFor('Größe?', new Set(['große', 'grosse']))).toMatch(/^[a-z0-9_]+$/)
  expect(fieldKeyFor('Town', new Set(['town']))).toBe('town_2')
  expect(fieldKeyFor('✦')).toBe('field')
})

test('an import never brings back somebody who left', () => {
  const states: (SubscriptionState | null)[] = [null, 'pending', 'subscribed', 'unsubscribed']
  for (const wanted of ['pending', 'subscribed'] as const)
    expect(nextSubscription('unsubscribed', wanted, 'import')).toBe('unsubscribed')
  expect(nextSubscription('unsubscribed', 'subscribed', 'person')).toBe('subscribed')
  for (const present of states)
    expect(nextSubscription(present, 'subscribed', 'import')).toBe(
      present === 'unsubscribed' ? 'unsubscribed' : 'subscribed',
    )
})
