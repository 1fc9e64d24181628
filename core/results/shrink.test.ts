import fc from 'fast-check'
import { expect, test } from 'vitest'
import { shrinkRates } from './shrink'

/** A number in 0..1 that looks like chance, the same for the same seed. */
function chanceFrom(seed: number) {
  let state = seed
  return () => {
    state = (state + 0x6d2b79f5) | 0
    let t = Math.imul(state ^ (state >>> 15), 1 | state)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32
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

/** A beta with a mean and a spread, by Cheng's way of a ratio of gammas (Marsaglia and Tsang 2000). */
function betaOf(mean: number, spread: number, chance: () => number): number {
  if (spread === 0) return mean
  const weight = (mean * (1 - mean)) / spread ** 2 - 1
  const [a, b] = [gamma(mean * weight), gamma((1 - mean) * weight)]
  return a / (a + b)
  function gamma(shape: number): number {
    if (shape < 1) return gamma(shape + 1) * chance() ** (1 / shape)
    const d = shape - 1 / 3
    for (;;) {
      const z = Math.sqrt(-2 * Math.log(1 - chance())) * Math.cos(2 * Math.PI * chance())
      const v = (1 + z / Math.sqrt(9 * d)) ** 3
      if (v > 0 && Math.log(1 - chance()) < 0.5 * z * z + d - d * v + d * Math.log(v)) return d * v
    }
  }
}

function hitsOf(of: number, share: number, chance: () => number): number {
  let hits = 0
  for (let i = 0; i < of; i++) if (chance() < share) hits++
  return hits
}

/** How often the intervals hold the truth, for so many mailings of so many people whose shares have a mean and a spread. */
function coverage(mailings: number, of: number, mean: number, spread: number, runs: number) {
  const chance = chanceFrom(mailings * 7919 + of * 31 + Math.round(spread * 1000))
  let held = 0
  for (let run = 0; run < runs; run++) {
    const truths = Array.from({ length: mailings }, () => betaOf(mean, spread, chance))
    const counted = truths.map((truth) => ({ of, hits: hitsOf(of, truth, chance) }))
    shrinkRates(counted).forEach(({ low, high }, i) => {
      if (low <= truths[i]! && truths[i]! <= high) held++
    })
  }
  return held / (mailings * runs)
}

test('its intervals hold the truth as often as they say, however many mailings differ however much', () => {
  const runs = { 3: 180, 12: 60, 200: 11 }
  const cells = ([3, 12, 200] as const).flatMap((mailings) =>
    [0, 0.02, 0.04, 0.06, 0.08, 0.1].map((spread) => ({
      mailings,
      spread,
      held: coverage(mailings, 300, 0.3, spread, runs[mailings]),
    })),
  )
  for (const { mailings, spread, held } of cells)
    expect(held, `${mailings} mailings, spread ${spread}`).toBeGreaterThanOrEqual(0.93)
  const average = cells.reduce((sum, { held }) => sum + held, 0) / cells.length
  expect(average).toBeGreaterThan(0.94)
  expect(average).toBeLessThan(0.965)
})

test('of equally many people more hits are a higher share; many people are hardly moved', () => {
  const shares = fc.integer({ min: 1, max: 5_000 }).chain((of) =>
    fc.array(
      fc.integer({ min: 0, max: of }).map((hits) => ({ of, hits })),
      { minLength: 1, maxLength: 20 },
    ),
  )
  fc.assert(
    fc.property(shares, (of) => {
      const rates = shrinkRates(of)
      for (const { rate, low, high } of rates) {
        expect(low).toBeGreaterThanOrEqual(0)
        expect(low).toBeLessThanOrEqual(rate)
        expect(rate).toBeLessThanOrEqual(high)
        expect(high).toBeLessThanOrEqual(1)
      }
      const byHits = of.map(({ hits }, i) => ({ hits, rate: rates[i]!.rate }))
      byHits.sort((one, other) => one.hits - other.hits)
      byHits.forEach(({ rate }, i) =>
        expect(rate).toBeGreaterThanOrEqual((byHits[i - 1]?.rate ?? 0) - 1e-12),
      )
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
  expect(alike.every(({ rate }) => Math.abs(rate - 0.3) < 0.002)).toBe(true)
  expect(shrinkRates([{ hits: 0, of: 0 }])).toEqual([{ raw: 0, rate: 0, low: 0, high: 0 }])
  expect(shrinkRates([])).toEqual([])
})
