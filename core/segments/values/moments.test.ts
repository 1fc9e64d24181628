import fc from 'fast-check'
import { expect, test } from 'vitest'
import { DAY, dayOf, startOfDay } from '../../time'
import { daysOf, momentsOf, sinceOf, type DayRange, type MomentRange } from './moments'
import type { TimeComparison } from './comparison'

const zone = fc.constantFrom('UTC', 'Europe/London', 'Pacific/Auckland', 'America/St_Johns')
const moment = fc.integer({ min: Date.UTC(2020, 0, 1), max: Date.UTC(2030, 0, 1) })
const has = ({ from = -Infinity, to = Infinity }: MomentRange, at: number) => from <= at && at < to
const hasDay = ({ after = '', upTo = '~', before = '~' }: DayRange, day: string) =>
  day > after && day <= upTo && day < before

test('a moment is before, on or after a day: just one of them', () => {
  fc.assert(
    fc.property(moment, moment, zone, (now, at, zone) => {
      const day = dayOf(now, zone)
      const asked = { now, zone }
      const held = (['before', 'on', 'after'] as const).filter((is) =>
        has(momentsOf({ is, day }, asked), at),
      )
      expect(held).toHaveLength(1)
      const today = dayOf(at, zone)
      expect(held[0]).toBe(today < day ? 'before' : today > day ? 'after' : 'on')
    }),
  )
})

test('the last N days are the N × 24 hours up to now, now included', () => {
  fc.assert(
    fc.property(moment, zone, fc.integer({ min: 1, max: 3_000 }), (now, zone, days) => {
      const range = momentsOf({ is: 'last-days', days }, { now, zone })
      expect(has(range, now)).toBe(true)
      expect(has(range, now + 1)).toBe(false)
      expect(has(range, now - days * DAY)).toBe(false)
      expect(has(range, now - days * DAY + 1)).toBe(true)
      expect(sinceOf(days, now)).toBe(range.from)
    }),
  )
})

test('the next N days begin after now and join the last ones without overlap', () => {
  fc.assert(
    fc.property(moment, zone, fc.integer({ min: 1, max: 3_000 }), (now, zone, days) => {
      const asked = { now, zone }
      const last = momentsOf({ is: 'last-days', days }, asked)
      const next = momentsOf({ is: 'next-days', days }, asked)
      expect(next.from).toBe(last.to)
      expect(next.to! - next.from!).toBe(days * DAY)
    }),
  )
})

test('a day counts as its first moment in the zone', () => {
  const comparison = fc.oneof(
    fc.record({
      is: fc.constantFrom('before' as const, 'on' as const, 'after' as const),
      day: moment.map((at) => dayOf(at, 'UTC')),
    }),
    fc.record({
      is: fc.constantFrom('last-days' as const, 'next-days' as const),
      days: fc.integer({ min: 1, max: 900 }),
    }),
  )
  fc.assert(
    fc.property(comparison, moment, moment, zone, (when, now, other, zone) => {
      const asked = { now, zone }
      const day = dayOf(other, zone)
      expect(hasDay(daysOf(when as TimeComparison, asked), day)).toBe(
        has(momentsOf(when as TimeComparison, asked), startOfDay(day, zone)),
      )
    }),
    { numRuns: 2_000 },
  )
})

test('ever is without a beginning', () => {
  expect(sinceOf(null, Date.UTC(2026, 0, 1))).toBeNull()
})
