import { wilson } from '../results'

/** What being mailed was worth: the rate of the mailed less that of those held out, with its 95% interval. */
export interface Lift {
  mailed: number
  heldOut: number
  difference: number
  low: number
  high: number
}

/** The difference of two rates with its interval (Newcombe 1998, method 10: from the Wilson intervals of both). */
export function liftOf(
  mailed: { hits: number; of: number },
  heldOut: { hits: number; of: number },
): Lift {
  const [one, other] = [wilson(mailed.hits, mailed.of), wilson(heldOut.hits, heldOut.of)]
  const difference = one.rate - other.rate
  return {
    mailed: one.rate,
    heldOut: other.rate,
    difference,
    low: difference - Math.hypot(one.rate - one.low, other.high - other.rate),
    high: difference + Math.hypot(one.high - one.rate, other.rate - other.low),
  }
}
