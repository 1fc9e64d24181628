import { expect, test } from 'vitest'
import { inUnits, waitWords } from './waits'

test('a wait is said in the largest unit that says it whole', () => {
  const HOUR = 3_600_000
  expect(waitWords(24 * HOUR)).toBe('1 day')
  expect(waitWords(48 * HOUR)).toBe('2 days')
  expect(waitWords(36 * HOUR)).toBe('36 hours')
  expect(waitWords(90 * 60_000)).toBe('90 minutes')
  expect(inUnits(20)).toMatchObject({ n: 1, unit: { one: 'minute' } })
})
