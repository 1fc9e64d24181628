import { test, expect } from 'vitest'
import fc from 'fast-check'
import { wilson } from './wilson'
import { judgeClick, judgeOpen } from './verdict'
import { fillHours, halfTime } from './hours'
import { ratesOf, type Totals } from './rates'
import { HOUR } from '../time'

test.each([
  // Newcombe (1998), table I, method 3
  [81, 263, 0.2553, 0.3662],
  [15, 148, 0.0624, 0.1605],
  [0, 20, 0, 0.1611],
  [1, 29, 0.0061, 0.1718],
])('the interval of %i in %i is as published', (hits, tries, low, high) => {
  const interval = wilson(hits, tries)
  expect(interval.low).toBeCloseTo(low, 4)
  expect(interval.high).toBeCloseTo(high, 4)
})

test('an interval holds its rate, lies within 0 and 1, and narrows as more is known', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 1e6 }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      (tries, share) => {
        const hits = Math.round(tries * share)
        const { rate, low, high } = wilson(hits, tries)
        expect(low).toBeGreaterThanOrEqual(0)
        expect(low).toBeLessThanOrEqual(rate)
        expect(high).toBeGreaterThanOrEqual(rate)
        expect(high).toBeLessThanOrEqual(1)
        const more = wilson(hits * 4, tries * 4)
        expect(more.high - more.low).toBeLessThan(high - low)
      },
    ),
  )
})

const browser = 'Mozilla/5.0 (X11; Linux x86_64) SailMail/4.1'
test('prefetching proxies and hasty data centres are machines, people are not', () => {
  expect(judgeOpen({ at: 90_000, acceptedAt: 0, agent: 'Mozilla/5.0' })).toBe('machine')
  expect(judgeOpen({ at: 1_000, acceptedAt: 0, agent: 'curl/8.1' })).toBe('machine')
  expect(judgeOpen({ at: 9_000, acceptedAt: 0, agent: 'curl/8.1' })).toBe('human')
  expect(judgeOpen({ at: 1_000, acceptedAt: 0, agent: browser })).toBe('human')
})

test('a scanner follows every link at once and has not opened; a reader may', () => {
  const burst = [0, 1, 2].map((link) => ({ link, at: link * 400 }))
  const click = { method: 'GET', at: 0, clicks: burst, linksInLetter: 3, openedBefore: false }
  expect(judgeClick(click)).toBe('machine')
  expect(judgeClick({ ...click, openedBefore: true })).toBe('human')
  expect(judgeClick({ ...click, clicks: burst.slice(0, 2) })).toBe('human')
  expect(judgeClick({ ...click, at: 60_000, clicks: [...burst, { link: 1, at: 60_000 }] })).toBe(
    'human',
  )
  expect(judgeClick({ ...click, clicks: [burst[0]!], linksInLetter: 1 })).toBe('human')
  expect(judgeClick({ ...click, method: 'HEAD', openedBefore: true })).toBe('machine')
})

test('hours are filled, and half of the opens have come when they have', () => {
  const counts = [
    { hour: 0, opens: 4, clicks: 1 },
    { hour: 3, opens: 4, clicks: 0 },
  ]
  expect(fillHours(counts, 5).map(({ opens }) => opens)).toEqual([4, 0, 0, 4, 0])
  expect(halfTime(counts)).toBe(HOUR)
  expect(halfTime([{ hour: 2, opens: 2, clicks: 0 }])).toBe(2.5 * HOUR)
  expect(halfTime([])).toBeNull()
})

test('rates are over delivered, and a complaint was delivered', () => {
  const totals: Totals = {
    recipients: 110,
    waiting: 0,
    accepted: 98,
    bounced: 3,
    complained: 2,
    failed: 5,
    dropped: 2,
    uncertain: 0,
    opened: 40,
    clicked: 10,
    left: 1,
    machineOpened: 20,
    scannerClicked: 0,
  }
  const rates = ratesOf(totals)
  expect(rates.delivered).toMatchObject({ hits: 100, of: 108 })
  expect(rates.opened).toMatchObject({ hits: 40, of: 100, rate: 0.4 })
  expect(rates.clickToOpen).toMatchObject({ hits: 10, of: 40, rate: 0.25 })
  expect(rates.complained.rate).toBe(0.02)
})
