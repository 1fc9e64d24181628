import { expect, test } from 'vitest'
import { isDayRule } from '~~/core/sequences'
import { repeatsFrom, repeatWords, ruleMoved } from './repeats'

test('the usual ways of coming again are rules, and say what they mean', () => {
  // A Monday, the first of its month.
  const usual = repeatsFrom('2027-02-01')
  expect(usual.every(({ rule }) => isDayRule(rule))).toBe(true)
  expect(usual.map(({ words }) => words)).toEqual([
    'every day',
    'Monday to Friday',
    'every Monday',
    'on day 1 of each month',
    'every first Monday of the month',
    'every last Monday of the month',
    'every year on 1 February',
  ])
  expect(repeatWords('FREQ=DAILY;COUNT=3', '2027-02-01')).toBe('by the rule FREQ=DAILY;COUNT=3')
})

test('a usual rule goes with its day; one of one’s own stays', () => {
  expect(ruleMoved('FREQ=MONTHLY;BYDAY=1MO', '2027-02-01', '2027-02-16')).toBe(
    'FREQ=MONTHLY;BYDAY=3TU',
  )
  expect(ruleMoved('FREQ=DAILY;COUNT=3', '2027-02-01', '2027-02-16')).toBe('FREQ=DAILY;COUNT=3')
  expect(ruleMoved(null, '2027-02-01', '2027-02-16')).toBeNull()
})
