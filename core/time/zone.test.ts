import { test, expect } from 'vitest'
import { addDays, dayStart, isZone, localInputToTime, timeToLocalInput } from './zone'

const zone = 'Europe/London'

test('a day begins at local midnight, also in summer', () => {
  expect(new Date(dayStart(Date.UTC(2026, 5, 10, 23, 30), zone)).toISOString()).toBe(
    '2026-06-10T23:00:00.000Z',
  )
  expect(new Date(dayStart(Date.UTC(2026, 11, 10, 23, 30), zone)).toISOString()).toBe(
    '2026-12-10T00:00:00.000Z',
  )
})

test('a day added across the change of summer time keeps the hour', () => {
  const before = localInputToTime('2026-10-24T09:00', zone)!
  expect(timeToLocalInput(addDays(before, 1, zone), zone)).toBe('2026-10-25T09:00')
})

test('what is no time or no zone is refused', () => {
  expect(localInputToTime('tomorrow', zone)).toBeNull()
  expect(isZone('Europe/London')).toBe(true)
  expect(isZone('Sandreach/Pier')).toBe(false)
})
