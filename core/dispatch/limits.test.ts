import fc from 'fast-check'
import { expect, test } from 'vitest'
import { countsSince, isPassed, limitPassed, usualLimits } from './limits'

test('a few bad ones among the first are no evidence; many are', () => {
  expect(isPassed(2, 59, 0.02)).toBe(false)
  expect(isPassed(3, 59, 0.02)).toBe(false)
  expect(isPassed(20, 200, 0.02)).toBe(true)
  expect(isPassed(1, 1, 0.001)).toBe(false)
  expect(isPassed(0, 1_000_000, 0.02)).toBe(false)
  expect(limitPassed({ tried: 59, bounced: 2, complained: 0, deferred: 0 }, usualLimits)).toBeNull()
  expect(limitPassed({ tried: 300, bounced: 30, complained: 0, deferred: 0 }, usualLimits)).toMatch(
    /30 of 300 bounced or were refused \(10\.0%\), which is more than chance above the limit of 2\.0%/,
  )
})

/** A generator of its own, so that the figures are the same in every run. */
function randoms(seed: number) {
  let state = seed
  return () => {
    state = (state + 0x6d2b79f5) | 0
    let t = Math.imul(state ^ (state >>> 15), 1 | state)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32
  }
}
/** In how many of some runs the limit is ever taken for passed, looked at after every one of so many. */
function everPassed(share: number, limit: number, many: number, runs: number) {
  const random = randoms(7)
  let passed = 0
  for (let run = 0; run < runs; run++) {
    let bad = 0
    for (let n = 1; n <= many; n++) {
      if (random() < share) bad++
      if (isPassed(bad, n, limit)) {
        passed++
        break
      }
    }
  }
  return passed / runs
}

test('at the limit it stops one in a hundred at most, at twice the limit nearly always', () => {
  expect(everPassed(0.02, 0.02, 5_000, 1_500)).toBeLessThanOrEqual(0.018)
  expect(everPassed(0.01, 0.02, 5_000, 1_500)).toBeLessThanOrEqual(0.002)
  expect(everPassed(0.04, 0.02, 5_000, 800)).toBeGreaterThanOrEqual(0.97)
  expect(everPassed(0.2, 0.1, 1_000, 800)).toBeGreaterThanOrEqual(0.97)
})

test('more bad ones are never less evidence, more good ones never more', () => {
  fc.assert(
    fc.property(
      fc.nat(200),
      fc.nat(5_000),
      fc.double({ min: 0.0005, max: 0.4, noNaN: true }),
      (bad, good, limit) => {
        if (!isPassed(bad, bad + good, limit)) return
        expect(isPassed(bad + 1, bad + good + 1, limit)).toBe(true)
        if (good > 0) expect(isPassed(bad, bad + good - 1, limit)).toBe(true)
      },
    ),
  )
})

test('after somebody has looked, what comes is watched anew', () => {
  const then = { tried: 100, bounced: 9, complained: 1, deferred: 20 }
  expect(countsSince({ tried: 150, bounced: 10, complained: 1, deferred: 5 }, then)).toEqual({
    tried: 50,
    bounced: 1,
    complained: 0,
    deferred: 0,
  })
})
