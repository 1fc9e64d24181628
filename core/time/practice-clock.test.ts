import { test, expect } from 'vitest'
import fc from 'fast-check'
import { leapTo, nextLeap, practiceTime, withRate, type PracticeClock } from './practice-clock'
import { DAY, HOUR, MINUTE } from './clock'

const start: PracticeClock = {
  anchorReal: 1_000,
  anchorPractice: 5_000_000,
  rate: 60,
  jumpTo: null,
}

test('runs at its rate from its anchor', () => {
  expect(practiceTime(start, 1_000)).toBe(5_000_000)
  expect(practiceTime(start, 2_000)).toBe(5_060_000)
  expect(practiceTime(withRate(start, 2_000, 1), 3_000)).toBe(5_061_000)
})

test('never goes back, whatever is done with it', () => {
  fc.assert(
    fc.property(
      fc.array(
        fc.record({
          wait: fc.nat(10_000),
          act: fc.oneof(
            fc.record({ rate: fc.constantFrom(1, 60, 3600) }),
            fc.record({ leap: fc.integer({ min: -DAY, max: DAY }) }),
          ),
        }),
      ),
      (acts) => {
        let clock = start
        let real = start.anchorReal
        let shown = practiceTime(clock, real)
        for (const { wait, act } of acts) {
          real += wait
          clock =
            'rate' in act ? withRate(clock, real, act.rate) : leapTo(clock, real, shown + act.leap)
          const now = practiceTime(clock, real)
          expect(now).toBeGreaterThanOrEqual(shown)
          shown = now
        }
      },
    ),
  )
})

test('stands still on its way to a jump and runs on when it has arrived', () => {
  const jumping = { ...start, jumpTo: 6_000_000 }
  expect(practiceTime(jumping, 99_000)).toBe(5_000_000)
  const there = leapTo(jumping, 99_000, 6_000_000)
  expect(there.jumpTo).toBeNull()
  expect(practiceTime(there, 100_000)).toBe(6_060_000)
})

test('a jump stops at what is due, in steps of a minute to half an hour', () => {
  expect(nextLeap(0, DAY, null)).toBe(30 * MINUTE)
  expect(nextLeap(0, DAY, 10 * MINUTE)).toBe(10 * MINUTE)
  expect(nextLeap(0, DAY, 5)).toBe(MINUTE)
  expect(nextLeap(0, 5, null)).toBe(5)
  expect(nextLeap(0, 96 * HOUR, null)).toBe(HOUR)
})

test('every jump arrives', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 400 * DAY }), (target) => {
      let now = 0
      let leaps = 0
      while (now < target) {
        now = nextLeap(now, target, null)
        leaps++
        expect(leaps).toBeLessThan(1_000)
      }
      expect(now).toBe(target)
    }),
  )
})
