import { keennessOf, tiers, type Tier } from '../standing'

/** Keenness: `from` ≤ k < `to`. Without `from`, who never did anything is in it too. */
export interface TierSpan {
  from: number | null
  to: number | null
}

/** The spans of keenness that some tiers cover at `now`. */
export function tierSpans(of: readonly Tier[], now: number): TierSpan[] {
  return of.map((tier) => {
    const above = tiers[tiers.indexOf(tier) + 1]
    return { from: keennessOf(tier, now), to: above ? keennessOf(above, now) : null }
  })
}
