import type { Interval } from '../results'

/** So many times the people are drawn anew. */
const TIMES = 400
const TAIL = 0.025

/**
 * What being led brought in money: the mean a person of one group less that of another, times the people of the first, with its
 * 95% interval by the bootstrap (Efron and Tibshirani 1993, chapter 13, percentiles). Each person is drawn as often as a Poisson
 * variable with mean 1 says, and the mean is over all draws; of those who paid nothing only how many are drawn matters.
 */
export function moneyThatWouldNotHaveCome(
  led: { each: readonly number[]; of: number },
  heldOut: { each: readonly number[]; of: number },
): Interval {
  const random = source(led.each.length * 31 + heldOut.each.length)
  const drawnMean = ({ each, of }: typeof led) => {
    let sum = 0
    let people = poissonOf(of - each.length, random)
    for (const money of each) {
      const times = poisson(random)
      sum += money * times
      people += times
    }
    return people > 0 ? sum / people : 0
  }
  const mean = ({ each, of }: typeof led) =>
    each.reduce((sum, money) => sum + money, 0) / Math.max(1, of)
  const drawn = Array.from(
    { length: TIMES },
    () => (drawnMean(led) - drawnMean(heldOut)) * led.of,
  ).sort((a, b) => a - b)
  return {
    rate: (mean(led) - mean(heldOut)) * led.of,
    low: drawn[Math.floor(TAIL * TIMES)]!,
    high: drawn[Math.ceil((1 - TAIL) * TIMES) - 1]!,
  }
}

/** A Poisson variable with a mean: of many, as the normal variable it is near to (Box and Muller). */
function poissonOf(mean: number, random: () => number): number {
  if (mean < 1) return 0
  const normal = Math.sqrt(-2 * Math.log(random())) * Math.cos(2 * Math.PI * random())
  return Math.max(0, Math.round(mean + Math.sqrt(mean) * normal))
}

/** A Poisson variable with mean 1 (Knuth). */
function poisson(random: () => number): number {
  const least = Math.exp(-1)
  let n = 0
  for (let p = random(); p > least; p *= random()) n++
  return n
}

/** The same numbers for the same figures, so that what is shown does not tremble (a linear congruence, Numerical Recipes). */
function source(seed: number): () => number {
  let state = (seed ^ 0x9e3779b9) >>> 0
  return () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0
    return (state + 0.5) / 2 ** 32
  }
}
