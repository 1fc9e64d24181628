import { Z95 } from '../counting'

/** A rate with the bounds between which the true rate lies with 95% confidence. All in 0..1. */
export interface Interval {
  rate: number
  low: number
  high: number
}

const z = Z95

/**
 * Wilson's score interval for `hits` out of `tries` (E. B. Wilson, 1927).
 * With no tries nothing is known: the rate is 0 and the interval everything.
 */
export function wilson(hits: number, tries: number): Interval {
  if (tries <= 0) return { rate: 0, low: 0, high: 1 }
  const rate = hits / tries
  const spread = z * Math.sqrt((rate * (1 - rate)) / tries + (z * z) / (4 * tries * tries))
  const middle = rate + (z * z) / (2 * tries)
  const scale = 1 + (z * z) / tries
  return {
    rate,
    low: Math.max(0, Math.min(rate, (middle - spread) / scale)),
    high: Math.min(1, Math.max(rate, (middle + spread) / scale)),
  }
}
