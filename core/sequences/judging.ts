import { compareVariants, type Compared, type Outcome } from '../experiments'
import { WHOLE, type Judged } from './steps/by-lot'

/** Before so many came by each way, and their days are over, nothing is decided, and nothing follows the evidence. */
export const FEWEST_A_WAY = 100
/** Shares that follow the evidence leave each way so much, in tenths of a percent: what is not tried is not learned of. */
const FLOOR = 100

/**
 * How the ways of a split compare, by what came of those whose days are over; and the shares that this leads to, in tenths of a
 * percent by way. Null: they stay as they are.
 *
 * Decided: all to the best, once it is the best with {@link compareVariants}’ clarity. Adaptive is Thompson sampling: a way is
 * given to whoever comes next as often as a draw from the posteriors has it for the best, which is its chance to be best
 * (Thompson 1933; Russo et al. 2018, A Tutorial on Thompson Sampling), over a floor.
 */
export function judge(
  outcomes: readonly Outcome[],
  how: Judged['how'],
): { compared: Compared; shares: number[] | null } {
  const compared = compareVariants(outcomes)
  if (how === 'hand' || outcomes.some(({ of }) => of < FEWEST_A_WAY))
    return { compared, shares: null }
  if (how === 'self')
    return { compared, shares: compared.clear ? allTo(compared.leader, outcomes.length) : null }
  const over = WHOLE - FLOOR * outcomes.length
  const shares = compared.variants.map(({ best }) => FLOOR + Math.floor(best * over))
  shares[compared.leader]! += WHOLE - shares.reduce((sum, share) => sum + share, 0)
  return { compared, shares }
}

/** Everybody by one of so many ways. */
export const allTo = (way: number, ways: number): number[] =>
  Array.from({ length: ways }, (_, n) => (n === way ? WHOLE : 0))

/** Reads shares that were kept; null where they are none for so many ways. */
export function readShares(json: string | null, ways: number): number[] | null {
  if (json === null) return null
  const shares = JSON.parse(json) as unknown
  return Array.isArray(shares) &&
    shares.length === ways &&
    shares.every((share) => Number.isSafeInteger(share) && (share as number) >= 0) &&
    (shares as number[]).reduce((sum, share) => sum + share, 0) === WHOLE
    ? (shares as number[])
    : null
}
