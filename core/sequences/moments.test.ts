import fc from 'fast-check'
import { expect, test } from 'vitest'
import { isDayRule, nextMoment } from './moments'
import { readStarting } from './starts'

const at = (iso: string) => Date.parse(iso)
const monthly = { from: '2027-01-04', hour: 9, rule: 'FREQ=MONTHLY;BYDAY=1MO' }

test('every first Monday, at an hour of the account’s clock, in summer and in winter', () => {
  const zone = 'Europe/Berlin'
  const found: string[] = []
  let time: number | null = at('2027-02-20T00:00:00Z')
  for (let n = 0; n < 3; n++) {
    time = nextMoment(monthly, time!, zone)
    found.push(new Date(time!).toISOString())
  }
  expect(found).toEqual([
    '2027-03-01T08:00:00.000Z',
    '2027-04-05T07:00:00.000Z',
    '2027-05-03T07:00:00.000Z',
  ])
})

test('once is once; a rule that has ended has no moment any more', () => {
  const once = { ...monthly, rule: null }
  expect(nextMoment(once, at('2027-01-04T08:59:59Z'), 'UTC')).toBe(at('2027-01-04T09:00:00Z'))
  expect(nextMoment(once, at('2027-01-04T09:00:00Z'), 'UTC')).toBeNull()
  const thrice = { ...monthly, rule: 'FREQ=DAILY;COUNT=3' }
  expect(nextMoment(thrice, at('2027-01-06T08:00:00Z'), 'UTC')).toBe(at('2027-01-06T09:00:00Z'))
  expect(nextMoment(thrice, at('2027-01-06T09:00:00Z'), 'UTC')).toBeNull()
})

test('a yearly 29 February comes in leap years alone, and is found at once', () => {
  const leap = { from: '2024-02-29', hour: 9, rule: 'FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=29' }
  expect(nextMoment(leap, at('2025-01-01T00:00:00Z'), 'UTC')).toBe(at('2028-02-29T09:00:00Z'))
})

test('what is no rule of days is none', () => {
  for (const rule of [
    ...['', 'every Monday', 'FREQ=HOURLY', 'FREQ=DAILY;BYHOUR=9,10', 'FREQ=SECONDLY'],
    ...['FREQ=WEEKLY;BYDAY=XX', 'FREQ=MONTHLY;BYMONTHDAY=99', null, 7, 'A'.repeat(300)],
  ])
    expect([rule, isDayRule(rule)]).toEqual([rule, false])
  expect(isDayRule('FREQ=WEEKLY;INTERVAL=2;BYDAY=MO,TH')).toBe(true)
  const given = { is: 'moment', from: '2027-01-04', hour: 9, segmentId: 0 }
  expect(readStarting({ ...given, rule: 'FREQ=HOURLY' })).toBeNull()
  expect(readStarting(given)).toEqual({ ...given, rule: null })
})

test('a moment lies always behind the time that is asked, and asking again goes on', () => {
  const rule = fc.constantFrom(
    ...['FREQ=DAILY', 'FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR', 'FREQ=MONTHLY;BYDAY=-1SU'],
    ...['FREQ=MONTHLY;BYMONTHDAY=31', 'FREQ=DAILY;INTERVAL=10'],
  )
  const zone = fc.constantFrom('UTC', 'Europe/Berlin', 'Pacific/Apia', 'America/New_York')
  const time = fc.integer({ min: at('2026-12-01T00:00:00Z'), max: at('2028-12-01T00:00:00Z') })
  fc.assert(
    fc.property(rule, zone, time, fc.integer({ min: 0, max: 23 }), (rule, zone, after, hour) => {
      const of = { from: '2026-11-30', hour, rule }
      const first = nextMoment(of, after, zone)!
      expect(first).toBeGreaterThan(after)
      // Nothing is passed over: from just before it, it is the next.
      expect(nextMoment(of, first - 1, zone)).toBe(first)
      expect(nextMoment(of, first, zone)!).toBeGreaterThan(first)
    }),
    { numRuns: 60 },
  )
})
