import { expect, test } from 'vitest'
import { HOUR } from '../../core/time'
import { clockOf, readClock, worldFollowed, worldFollowedTo, writeClock } from './clock'
import { openMemory } from '../connect'

test('without a practice clock time is the host’s', () => {
  const db = openMemory()
  expect(readClock(db)).toBeNull()
  expect(clockOf(db, () => 1234)()).toBe(1234)
})

test('what is written to the practice clock is read back, and every clock of it follows at once', () => {
  const db = openMemory()
  let host = 1_000
  writeClock(db, { anchorReal: 1_000, anchorPractice: 50_000, rate: 60, jumpTo: null })
  const clock = clockOf(db, () => host)
  expect(clock()).toBe(50_000)
  host = 2_000
  expect(clock()).toBe(50_000 + 60_000)
  writeClock(db, { anchorReal: 2_000, anchorPractice: 110_000, rate: 3_600, jumpTo: null })
  expect(clock()).toBe(110_000)
  host = 3_000
  expect(clock()).toBe(110_000 + HOUR)
  expect(readClock(db)).toEqual({
    anchorReal: 2_000,
    anchorPractice: 110_000,
    rate: 3_600,
    jumpTo: null,
  })
})

test('on the way of a jump it stands still between leaps', () => {
  const db = openMemory()
  let host = 0
  writeClock(db, { anchorReal: 0, anchorPractice: 10, rate: 60, jumpTo: 99_999 })
  const clock = clockOf(db, () => host)
  host = 10_000
  expect(clock()).toBe(10)
})

test('how far the world followed only goes forward', () => {
  const db = openMemory()
  expect(worldFollowedTo(db)).toBe(0)
  writeClock(db, { anchorReal: 0, anchorPractice: 0, rate: 1, jumpTo: null })
  worldFollowed(db, 500)
  worldFollowed(db, 400)
  expect(worldFollowedTo(db)).toBe(500)
})
