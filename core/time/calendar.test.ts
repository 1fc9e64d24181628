import fc from 'fast-check'
import { expect, test } from 'vitest'
import { anniversariesFrom, dayOf, isDay, nextDay, startOfDay } from './calendar'
import { DAY, HOUR } from './clock'

const zones = ['UTC', 'Europe/London', 'Pacific/Auckland', 'America/St_Johns', 'Asia/Kathmandu']
const moments = fc.integer({ min: Date.UTC(1990, 0, 1), max: Date.UTC(2050, 0, 1) })

test.each([
  ['2026-11-23', true],
  ['2024-02-29', true],
  ['2026-02-29', false],
  ['2026-13-01', false],
  ['2026-1-1', false],
  ['2026-11-23T00:00', false],
  ['', false],
  [20261123, false],
  [null, false],
])('%s is a day: %s', (text, is) => {
  expect(isDay(text)).toBe(is)
})

test('a moment lies in its own day, in every zone', () => {
  fc.assert(
    fc.property(moments, fc.constantFrom(...zones), (at, zone) => {
      const day = dayOf(at, zone)
      expect(isDay(day)).toBe(true)
      expect(startOfDay(day, zone)).toBeLessThanOrEqual(at)
      expect(startOfDay(nextDay(day), zone)).toBeGreaterThan(at)
    }),
  )
})

test('days follow one another without a gap, and compare as text', () => {
  fc.assert(
    fc.property(moments, (at) => {
      const day = dayOf(at, 'UTC')
      expect(nextDay(day) > day).toBe(true)
      expect(startOfDay(nextDay(day), 'UTC') - startOfDay(day, 'UTC')).toBe(DAY)
    }),
  )
})

test('where summer time begins or ends a day has 23 or 25 hours', () => {
  const length = (day: string) =>
    startOfDay(nextDay(day), 'Europe/London') - startOfDay(day, 'Europe/London')
  expect(length('2026-03-29')).toBe(23 * HOUR)
  expect(length('2026-10-25')).toBe(25 * HOUR)
})

test('years and months turn over', () => {
  expect(nextDay('2025-12-31')).toBe('2026-01-01')
  expect(nextDay('2024-02-28')).toBe('2024-02-29')
  expect(nextDay('2026-02-28')).toBe('2026-03-01')
})

test('29 February has its anniversary on 28 February in years without one', () => {
  expect(anniversariesFrom('2026-02-27', 2)).toEqual(['02-27', '02-28', '02-29', '03-01'])
  expect(anniversariesFrom('2028-02-27', 2)).toEqual(['02-27', '02-28', '02-29'])
  expect(anniversariesFrom('2026-02-28', 0)).toEqual(['02-28', '02-29'])
})

test('everybody has an anniversary within a year, whatever day one begins', () => {
  fc.assert(
    fc.property(moments, (at) => {
      const all = new Set(anniversariesFrom(dayOf(at, 'UTC'), 366))
      expect(all.size).toBe(366)
    }),
  )
})
