/** Below this many people a variant a test is warned of: only large differences show. */
export const FEWEST_A_VARIANT = 500

/** Quantiles of the normal distribution for 5% two-sided and for 80%. */
const Z_ALPHA = 1.959964
const Z_POWER = 0.841621

/**
 * The smallest rise above a rate that a test of two groups of `n` would show: two-sided at 5%, in 80% of cases
 * (Fleiss, Levin and Paik 2003, chapter 4, without a correction for continuity). A share; null where no rise can show.
 */
export function smallestDifference(n: number, rate: number): number | null {
  if (n < 2) return null
  let [low, high] = [0, 1 - rate]
  if (needed(rate, rate + high) > n) return null
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2
    if (needed(rate, rate + middle) > n) low = middle
    else high = middle
  }
  return high
}

/** How many people each of two groups needs for the difference of two rates to show. */
export function needed(one: number, other: number): number {
  const mean = (one + other) / 2
  const spread =
    Z_ALPHA * Math.sqrt(2 * mean * (1 - mean)) +
    Z_POWER * Math.sqrt(one * (1 - one) + other * (1 - other))
  return (spread / (other - one)) ** 2
}
