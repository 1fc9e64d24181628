import { test, expect } from 'vitest'
import fc from 'fast-check'
import { dateOrderOf, readDate, readNumber, readYesNo } from './values'
import { splitName } from './names'
import { fieldKeyFor, readFieldValue } from './fields'
import { nextSubscription, type SubscriptionState } from './subscription'

test('dates are read in their order and must exist', () => {
  expect(readDate('01/06/2019', 'dmy')).toBe('2019-06-01')
  expect(readDate('01/06/2019', 'mdy')).toBe('2019-01-06')
  expect(readDate('3.7.26', 'dmy')).toBe('2026-07-03')
  expect(readDate('3.7.62', 'dmy')).toBe('1962-07-03')
  expect(readDate('1962-09-22', 'dmy')).toBe('1962-09-22')
  expect(readDate('29/02/2024', 'dmy')).toBe('2024-02-29')
  expect(readDate('31/02/2021', 'dmy')).toBeNull()
  expect(readDate('soon', 'dmy')).toBeNull()
})

test('every date written in an order is read back in it', () => {
  fc.assert(
    fc.property(
      fc.date({ min: new Date('1900-01-01'), max: new Date('2099-12-31'), noInvalidDate: true }),
      (date) => {
        const iso = date.toISOString().slice(0, 10)
        const [y, m, d] = iso.split('-')
        expect(readDate(`${d}/${m}/${y}`, 'dmy')).toBe(iso)
        expect(readDate(`${m}/${d}/${y}`, 'mdy')).toBe(iso)
        expect(readDate(iso, 'mdy')).toBe(iso)
      },
    ),
  )
})

test('the order of dates is told by those that fit only one', () => {
  expect(dateOrderOf(['01/06/2019', '22/01/2017']).order).toBe('dmy')
  expect(dateOrderOf(['01/06/2019', '01/22/2017']).order).toBe('mdy')
})

test('numbers with a decimal comma, with grouping, and no numbers', () => {
  expect(readNumber('13,69', ',')).toBe(13.69)
  expect(readNumber('1.234,5', ',')).toBe(1234.5)
  expect(readNumber('1,234.5', '.')).toBe(1234.5)
  expect(readNumber('12a', '.')).toBeNull()
})

test('yes and no', () => {
  expect(['yes', 'Yes', '1', 'no', '0', 'maybe'].map(readYesNo)).toEqual([
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
