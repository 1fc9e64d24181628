import fc from 'fast-check'
import { expect, test } from 'vitest'
import { isPaused, maySince, pauseUntil, pauseWeeks, WEEKLY } from '.'
import { DAY } from '../time'

const NOW = Date.UTC(2026, 4, 4, 9)
const moment = fc.integer({ min: NOW - 90 * DAY, max: NOW + 90 * DAY })

test('a pause lasts as many weeks as were asked for, and then it is over', () => {
  for (const weeks of pauseWeeks) {
    const limits = { pausedUntil: pauseUntil(weeks, NOW), oneInDays: null }
    expect(limits.pausedUntil - NOW).toBe(weeks * 7 * DAY)
    expect(isPaused(limits, NOW)).toBe(true)
    expect(isPaused(limits, limits.pausedUntil)).toBe(false)
    expect(maySince(limits, NOW)).toBe(limits.pausedUntil)
  }
})

test('at most one a week: a week must lie between two, and the first may come at once', () => {
  const limits = { pausedUntil: null, oneInDays: WEEKLY }
  expect(maySince(limits, null)).toBeLessThanOrEqual(NOW)
  expect(maySince(limits, NOW - 3 * DAY)).toBe(NOW + 4 * DAY)
  expect(maySince(limits, NOW - 8 * DAY)).toBeLessThanOrEqual(NOW)
})

test('nobody is mailed before both their pause and their limit allow it', () => {
  fc.assert(
    fc.property(
      fc.option(moment),
      fc.option(fc.integer({ min: 1, max: 30 })),
      fc.option(moment),
      (pausedUntil, oneInDays, lastSentAt) => {
        const since = maySince({ pausedUntil, oneInDays }, lastSentAt)
        if (isPaused({ pausedUntil, oneInDays }, NOW)) expect(since).toBeGreaterThan(NOW)
        if (oneInDays !== null && lastSentAt !== null)
          expect(since - lastSentAt).toBeGreaterThanOrEqual(oneInDays * DAY)
        if (pausedUntil === null && oneInDays === null) expect(since).toBe(0)
      },
    ),
  )
})
