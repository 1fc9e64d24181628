import fc from 'fast-check'
import { expect, test } from 'vitest'
import { betaBelow, betaDensity, logBeta, normalBelow } from '../distributions'
import { needed } from './power'
import {
  CLEAR,
  compareVariants,
  curvesOf,
  liftOf,
  slotOf,
  smallestDifference,
  variantOf,
  type Outcome,
} from '.'

/** Numbers from 0 to 1, the same in every run (mulberry32). */
function seeded(seed: number) {
  return () => {
    seed = (seed + 0x6d2b79f5) | 0
    let t = Math.imul(seed ^ (seed >>> 15), 1 | seed)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32
  }
}
const rate = (hits: number, of: number): Outcome => ({ kind: 'rate', hits, of })

test('a person falls evenly, always to the same place, and elsewhere for another mailing', () => {
  const many = 40_000
  const bins = new Array<number>(20).fill(0)
  let together = 0
  let across = 0
  for (let person = 1; person <= many; person++) {
    const slot = slotOf('test', 7, person)
    expect(slot).toBe(slotOf('test', 7, person))
    bins[Math.floor(slot * 20)]!++
    together += (slot - 0.5) * (slotOf('test', 8, person) - 0.5)
    across += (slot - 0.5) * (slotOf('variant', 7, person) - 0.5)
  }
  const expected = many / 20
  const chi = bins.reduce((sum, n) => sum + (n - expected) ** 2 / expected, 0)
  // The 99.9% point of chi-squared with 19 degrees of freedom.
  expect(chi).toBeLessThan(43.82)
  // Correlations of what hangs together by chance only; one standard deviation is 1 / √many.
  for (const sum of [together, across])
    expect(Math.abs((sum / many) * 12)).toBeLessThan(4 / Math.sqrt(many))
})

test('variants are of equal size, and everybody is in one', () => {
  fc.assert(
    fc.property(fc.nat(), fc.maxSafeNat(), fc.integer({ min: 2, max: 5 }), (mailing, person, k) => {
      const variant = variantOf(mailing, person, k)
      expect(Number.isInteger(variant) && variant >= 0 && variant < k).toBe(true)
    }),
  )
  const sizes = [0, 0, 0]
  for (let person = 1; person <= 30_000; person++) sizes[variantOf(3, person, 3)]!++
  for (const size of sizes)
    expect(Math.abs(size - 10_000)).toBeLessThan(4 * Math.sqrt(30_000 * (1 / 3) * (2 / 3)))
})

test.each([
  // Sizes as they are published for 5% two-sided and 80%, without a correction for continuity
  [0.1, 0.15, 686],
  [0.2, 0.3, 294],
  [0.5, 0.6, 388],
  [0.05, 0.1, 435],
])('to tell %d from %d one needs %i people in each group', (one, other, people) => {
  expect(Math.ceil(needed(one, other))).toBe(people)
  expect(smallestDifference(people, one)!).toBeCloseTo(other - one, 3)
})

test('with more people smaller differences show; with a handful none', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 2, max: 500_000 }),
      fc.double({ min: 0.01, max: 0.9, noNaN: true }),
      (n, base) => {
        const found = smallestDifference(n, base)
        if (found === null) return
        expect(found).toBeGreaterThan(0)
        expect(smallestDifference(n * 2, base)!).toBeLessThan(found)
        expect(needed(base, base + found)).toBeCloseTo(n, -Math.log10(n) + 3)
      },
    ),
  )
  expect(smallestDifference(1, 0.2)).toBeNull()
  expect(smallestDifference(3, 0.95)).toBeNull()
})

test('the smallest difference shows in four of five tests', () => {
  const random = seeded(11)
  const [n, base] = [600, 0.2]
  const other = base + smallestDifference(n, base)!
  const draw = (p: number) => {
    let hits = 0
    for (let i = 0; i < n; i++) if (random() < p) hits++
    return hits
  }
  let shown = 0
  for (let i = 0; i < 1_000; i++) {
    const [a, b] = [draw(base) / n, draw(other) / n]
    const pooled = (a + b) / 2
    if (Math.abs(b - a) / Math.sqrt((2 * pooled * (1 - pooled)) / n) > 1.959964) shown++
  }
  expect(shown / 1_000).toBeGreaterThan(0.76)
  expect(shown / 1_000).toBeLessThan(0.84)
})

test('the beta distribution agrees with known values and with its own density summed', () => {
  expect(betaBelow(0.5, 2, 3)).toBeCloseTo(0.6875, 12)
  expect(betaBelow(0.3, 1, 1)).toBeCloseTo(0.3, 12)
  expect(betaBelow(0.1, 1, 20)).toBeCloseTo(1 - 0.9 ** 20, 12)
  fc.assert(
    fc.property(
      fc.double({ min: 2, max: 400, noNaN: true }),
      fc.double({ min: 2, max: 400, noNaN: true }),
      fc.double({ min: 0.01, max: 0.99, noNaN: true }),
      (a, b, x) => {
        const steps = 4_000
        let sum = 0
        for (let i = 0; i < steps; i++) sum += betaDensity(((i + 0.5) * x) / steps, a, b)
        expect(betaBelow(x, a, b)).toBeCloseTo((sum * x) / steps, 3)
        expect(betaBelow(x, a, b) + betaBelow(1 - x, b, a)).toBeCloseTo(1, 10)
      },
    ),
    { numRuns: 60 },
  )
})

test.each([
  [0, 0.5],
  [1, 0.841344746],
  [1.96, 0.975002105],
  [-3, 0.001349898],
  [8, 1],
])('the normal distribution below %d', (z, share) => expect(normalBelow(z)).toBeCloseTo(share, 8))

/** P(B > A) in closed form (E. Miller, 2014). */
function exactlyBetter(a: [number, number], b: [number, number]): number {
  const [a1, b1] = [a[0] + 1, a[1] - a[0] + 1]
  const [a2, b2] = [b[0] + 1, b[1] - b[0] + 1]
  let sum = 0
  for (let i = 0; i < a2; i++)
    sum += Math.exp(
      logBeta(a1 + i, b1 + b2) - Math.log(b2 + i) - logBeta(1 + i, b2) - logBeta(a1, b1),
    )
  return sum
}

test('for two variants the probability of being the best is the exact one', () => {
  const counts = fc
    .tuple(fc.integer({ min: 1, max: 3_000 }), fc.double({ min: 0, max: 1, noNaN: true }))
    .map(([of, share]): [number, number] => [Math.round(of * share), of])
  fc.assert(
    fc.property(counts, counts, (a, b) => {
      const { variants } = compareVariants([rate(...a), rate(...b)])
      expect(variants[1]!.best).toBeCloseTo(exactlyBetter(a, b), 4)
      expect(variants[0]!.best + variants[1]!.best).toBeCloseTo(1, 9)
    }),
    { numRuns: 60 },
  )
})

test('for three, probability and expected loss are what drawing from what is believed gives', () => {
  const counts: [number, number][] = [
    [120, 600],
    [141, 600],
    [131, 590],
  ]
  const random = seeded(5)
  const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
  // Beta by two gammas (Marsaglia and Tsang, 2000).
  const gamma = (shape: number) => {
    const d = shape - 1 / 3
    for (;;) {
      const x = normal()
      const v = (1 + x / Math.sqrt(9 * d)) ** 3
      if (v > 0 && Math.log(1 - random()) < 0.5 * x * x + d - d * v + d * Math.log(v)) return d * v
    }
  }
  const beta = ([hits, of]: [number, number]) => {
    const one = gamma(hits + 1)
    return one / (one + gamma(of - hits + 1))
  }
  const draws = 60_000
  const won = [0, 0, 0]
  const lost = [0, 0, 0]
  for (let i = 0; i < draws; i++) {
    const values = counts.map(beta)
    const top = Math.max(...values)
    won[values.indexOf(top)]!++
    values.forEach((value, j) => (lost[j]! += top - value))
  }
  const { variants, leader } = compareVariants(counts.map((one) => rate(...one)))
  expect(leader).toBe(1)
  variants.forEach(({ best, loss }, i) => {
    expect(best).toBeCloseTo(won[i]! / draws, 2)
    expect(loss).toBeCloseTo(lost[i]! / draws, 3)
  })
})

test('what is said of variants holds together, whatever came of them', () => {
  const outcome = fc.oneof(
    fc
      .tuple(fc.nat(5_000), fc.double({ min: 0, max: 1, noNaN: true }))
      .map(([of, share]) => rate(Math.round(of * share), of)),
  )
  fc.assert(
    fc.property(fc.array(outcome, { minLength: 2, maxLength: 5 }), (outcomes) => {
      const { variants, leader, clear } = compareVariants(outcomes)
      expect(variants.reduce((sum, { best }) => sum + best, 0)).toBeCloseTo(1, 6)
      for (const { best, loss, value } of variants) {
        expect(best).toBeGreaterThanOrEqual(0)
        expect(loss).toBeGreaterThanOrEqual(0)
        expect(value).toBeLessThanOrEqual(variants[leader]!.value)
      }
      expect(clear).toBe(variants[leader]!.best >= CLEAR)
    }),
    { numRuns: 80 },
  )
})

test('money: who brings more is the best, and one big order alone says little', () => {
  const money = (each: number[]): Outcome => ({
    kind: 'mean',
    sum: each.reduce((sum, one) => sum + one, 0),
    squares: each.reduce((sum, one) => sum + one * one, 0),
    of: each.length,
  })
  const many = (n: number, of: number, amount: number) =>
    Array.from({ length: of }, (_, i) => (i < n ? amount : 0))
  const clear = compareVariants([money(many(100, 1_000, 40)), money(many(160, 1_000, 40))])
  expect(clear).toMatchObject({ leader: 1, clear: true })
  const one = compareVariants([money(many(0, 1_000, 0)), money(many(1, 1_000, 900))])
  expect(one.leader).toBe(1)
  expect(one.clear).toBe(false)
  expect(compareVariants([money([]), money([])]).clear).toBe(false)
})

test('what is drawn of variants encloses nearly all that is believed of each', () => {
  const { x, y } = curvesOf([rate(120, 600), rate(141, 600), rate(0, 40)], 400)
  const step = x[1]! - x[0]!
  for (const curve of y) {
    expect(curve.reduce((sum, one) => sum + one * step, 0)).toBeGreaterThan(0.9)
    expect(Math.max(...curve)).toBeGreaterThan(0)
  }
})

test.each([
  // Newcombe (1998), table II, method 10
  [56, 70, 48, 80, 0.0524, 0.3339],
  [9, 10, 3, 10, 0.1705, 0.809],
  [10, 10, 0, 20, 0.6791, 1],
  [5, 56, 0, 29, -0.0381, 0.1926],
])('the lift of %i in %i over %i in %i is as published', (a, m, b, n, low, high) => {
  const lift = liftOf({ hits: a, of: m }, { hits: b, of: n })
  expect(lift.difference).toBeCloseTo(a / m - b / n, 9)
  expect(lift.low).toBeCloseTo(low, 4)
  expect(lift.high).toBeCloseTo(high, 4)
})
