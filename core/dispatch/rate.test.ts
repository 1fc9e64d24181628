import fc from 'fast-check'
import { expect, test } from 'vitest'
import { MINUTE } from '../time'
import { rateOf, timeLeft, withSample, type Sample } from './rate'

const told = (...samples: [at: number, tried: number][]) =>
  samples.reduce<Sample[]>((all, [at, tried]) => withSample(all, { at, tried }), [])

test('the rate is that of the last minute, and nothing is said of the first moments', () => {
  expect(rateOf([], 0)).toBeNull()
  expect(rateOf(told([0, 0], [1_000, 50]), 1_000)).toBeNull()
  expect(rateOf(told([0, 0], [30_000, 1_000]), 30_000)).toBe(2_000)
  // What was quick long ago is not counted; what has stood still for half a minute is.
  const slow = told([0, 0], [10_000, 90_000], [2 * MINUTE, 90_100], [2.5 * MINUTE, 90_200])
  expect(rateOf(slow, 2.5 * MINUTE)).toBeCloseTo(200 / (2.5 - 1 / 6))
  expect(rateOf(slow, 3 * MINUTE)).toBeCloseTo(100)
  expect(rateOf(slow, 3.2 * MINUTE)).toBeCloseTo(100 / 1.2)
  // Where nothing more has come for a whole minute, nothing moves.
  expect(rateOf(slow, 5 * MINUTE)).toBe(0)
})

test('a clock that is put back, or fewer than before, begin anew', () => {
  expect(told([5_000, 10], [1_000, 20])).toEqual([{ at: 1_000, tried: 20 }])
  expect(told([5_000, 10], [6_000, 3])).toEqual([{ at: 6_000, tried: 3 }])
})

test('at an even pace the rate is the pace, however often one looks', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 1_000 }),
      fc.array(fc.integer({ min: 200, max: 20_000 }), { minLength: 12, maxLength: 60 }),
      (aSecond, gaps) => {
        let at = 0
        let samples: Sample[] = []
        for (const gap of gaps) {
          at += gap
          samples = withSample(samples, { at, tried: (at * aSecond) / 1_000 })
          // As many are kept as the last minute needs, and one before it.
          expect(samples.filter((one) => one.at <= at - MINUTE).length).toBeLessThanOrEqual(1)
        }
        expect(rateOf(samples, at)).toBeCloseTo(aSecond * 60, 3)
      },
    ),
  )
})

test('the time left is what waits at the rate; where nothing moves it can’t be said', () => {
  expect(timeLeft(3_000, 1_500)).toBe(2 * MINUTE)
  expect(timeLeft(3_000, 0)).toBeNull()
  expect(timeLeft(3_000, null)).toBeNull()
})
