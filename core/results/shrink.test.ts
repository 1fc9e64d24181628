import fc from 'fast-check'
import { expect, test } from 'vitest'
import { shrinkRates } from './shrink'

/** A number in 0..1 that looks like chance, the same for the same seed. */
function chanceFrom(seed: number) {
  let state = seed
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return state / 2 ** 32
  }
}

test('shrunk shares are nearer the truth than those that were counted', () => {
  const chance = chanceFrom(7)
  let raw = 0
  let shrunk = 0
  for (let trial = 0; trial < 60; trial++) {
    const truths = Array.from({ length: 20 }, () => 0.3 + 0.1 * (chance() + chance() - 1))
    const counted = truths.map((truth) => {
      const of = 20 + Math.floor(chance() * 200)
      let hits = 0
      for (let i = 0; i < of; i++) if (chance() < truth) hits++
      return { hits, of }
    })
    shrinkRates(counted).forEach((rate, i) => {
      raw += (rate.raw - truths[i]!) ** 2
      shrunk += (rate.rate - truths[i]!) ** 2
    })
  }
  expect(shrunk).toBeLessThan(raw * 0.7)
})

test('its intervals hold the truth about as often as they say', () => {
  const chance = chanceFrom(11)
  let held = 0
  let all = 0
  for (let trial = 0; trial < 60; trial++) {
    const truths = Array.from({ length: 25 }, () => 0.3 + 0.16 * (chance() + chance() - 1))
    const counted = truths.map((truth) => {
      let hits = 0
      for (let i = 0; i < 150; i++) if (chance() < truth) hits++
      return { hits, of: 150 }
    })
    shrinkRates(counted).forEach(({ low, high }, i) => {
      all++
      if (low <= truths[i]! && truths[i]! <= high) held++
    })
  }
  expect(held / all).toBeGreaterThan(0.9)
  expect(held / all).toBeLessThan(0.99)
})

test('each lies between what was counted and the mean; many people are hardly moved', () => {
  const shares = fc.array(
    fc
      .integer({ min: 1, max: 5_000 })
      .chain((of) => fc.record({ of: fc.constant(of), hits: fc.integer({ min: 0, max: of }) })),
    { minLength: 2, maxLength: 20 },
  )
  fc.assert(
    fc.property(shares, (of) => {
      const mean = of.reduce((n, one) => n + one.hits, 0) / of.reduce((n, one) => n + one.of, 0)
      for (const { raw, rate, low, high } of shrinkRates(of)) {
        expect(rate).toBeGreaterThanOrEqual(Math.min(raw, mean) - 1e-9)
        expect(rate).toBeLessThanOrEqual(Math.max(raw, mean) + 1e-9)
        expect(low).toBeLessThanOrEqual(rate)
        expect(high).toBeGreaterThanOrEqual(rate)
      }
    }),
  )
  const [large] = shrinkRates([
    { hits: 90_000, of: 100_000 },
    { hits: 10, of: 100 },
    { hits: 3, of: 10 },
  ])
  expect(large!.rate).toBeCloseTo(0.9, 3)
})

test('shares that are all alike become their mean; without anybody there is nothing', () => {
  const alike = shrinkRates(Array.from({ length: 6 }, () => ({ hits: 30, of: 100 })))
  expect(alike.every(({ rate }) => Math.abs(rate - 0.3) < 1e-9)).toBe(true)
  expect(shrinkRates([{ hits: 0, of: 0 }])).toEqual([{ raw: 0, rate: 0, low: 0, high: 0 }])
  expect(shrinkRates([])).toEqual([])
})
