import fc from 'fast-check'
import { expect, test } from 'vitest'
import { afterQuiet, HOUR, hourOf, MINUTE } from '.'

const zone = 'Europe/London'
const hour = fc.integer({ min: 0, max: 23 })

test('what is due in quiet hours is sent at their end, and everything else at once', () => {
  const night = { from: 21, to: 7 }
  const at = (text: string) => Date.parse(text)
  expect(afterQuiet(at('2026-11-12T20:59Z'), night, zone)).toBe(at('2026-11-12T20:59Z'))
  expect(afterQuiet(at('2026-11-12T21:00Z'), night, zone)).toBe(at('2026-11-13T07:00Z'))
  expect(afterQuiet(at('2026-11-13T03:00Z'), night, zone)).toBe(at('2026-11-13T07:00Z'))
  expect(afterQuiet(at('2026-11-13T07:00Z'), night, zone)).toBe(at('2026-11-13T07:00Z'))
  // The hours are those of the clock, also in summer.
  expect(afterQuiet(at('2026-06-12T22:30Z'), night, zone)).toBe(at('2026-06-13T06:00Z'))
  expect(afterQuiet(at('2026-06-12T12:30Z'), { from: 13, to: 15 }, zone)).toBe(
    at('2026-06-12T14:00Z'),
  )
})

test('it is the first moment at which the clock shows none of the quiet hours, whatever the clock does', () => {
  const zones = fc.constantFrom(zone, 'UTC', 'America/New_York', 'Asia/Kathmandu', 'Africa/Cairo')
  // Two years, in which clocks change eight times.
  const times = fc.integer({
    min: Date.UTC(2026, 0, 1) / MINUTE,
    max: Date.UTC(2028, 0, 1) / MINUTE,
  })
  fc.assert(
    fc.property(hour, hour, zones, times, (from, to, zone, minutes) => {
      fc.pre(from !== to)
      const isQuiet = (at: number) => {
        const now = hourOf(at, zone)
        return from < to ? from <= now && now < to : now >= from || now < to
      }
      const at = minutes * MINUTE
      const then = afterQuiet(at, { from, to }, zone)
      if (!isQuiet(at)) return then === at
      for (let on = at; on < then; on += HOUR / 4) if (!isQuiet(on)) return false
      return !isQuiet(then)
    }),
    { numRuns: 300 },
  )
})
