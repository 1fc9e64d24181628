import { DAY } from '../time'

/** How much mail one person gets at most: so many mailings in so many days. */
export interface FrequencyCap {
  mailings: number
  days: number
}

/**
 * From when on a cap leaves room for one more mail.
 * @param times When they got mail, UTC ms, in any order; what is older than the cap's days does not matter.
 */
export function roomUnder(
  { mailings, days }: FrequencyCap,
  times: readonly number[],
  now: number,
): number {
  const within = times.filter((at) => at > now - days * DAY).sort((a, b) => a - b)
  // The mail that has to be so long ago before one more fits in.
  const first = within.at(-mailings)
  return first === undefined ? now : first + days * DAY
}
