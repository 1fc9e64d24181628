import { Z95 } from '../counting'

/** A share as it is likely to be, given how much such shares differ at all. */
export interface ShrunkRate {
  /** As it was counted. */
  raw: number
  rate: number
  low: number
  high: number
}

/**
 * Shares shrunk towards their common mean, each the more the fewer people it is of: the posterior of a beta-binomial
 * model whose prior is fitted to all of them by moments (empirical Bayes; Kleinman 1973, JASA 68:46-54). With 95%
 * intervals of the posterior by its normal approximation. Shares that differ by no more than chance all become the mean.
 */
export function shrinkRates(shares: readonly { hits: number; of: number }[]): ShrunkRate[] {
  const hits = sum(shares.map((share) => share.hits))
  const of = sum(shares.map((share) => share.of))
  if (of === 0) return shares.map(() => ({ raw: 0, rate: 0, low: 0, high: 0 }))
  const mean = hits / of
  const chance = mean * (1 - mean)
  const spread = sum(
    shares.map((share) => (share.of ? share.of * (share.hits / share.of - mean) ** 2 : 0)),
  )
  const counted = shares.filter((share) => share.of > 0).length
  const scale = of - sum(shares.map((share) => share.of ** 2)) / of
  const between = scale > 0 ? Math.max(0, (spread - (counted - 1) * chance) / scale) : 0
  // How many people the prior weighs as much as.
  const weight = between > 0 ? Math.max(0, chance / between - 1) : 1e12
  return shares.map((share) => {
    const n = share.of + weight
    const rate = n > 0 ? (share.hits + mean * weight) / n : mean
    const reach = Z95 * Math.sqrt((rate * (1 - rate)) / (n + 1))
    return {
      raw: share.of ? share.hits / share.of : 0,
      rate,
      low: Math.max(0, rate - reach),
      high: Math.min(1, rate + reach),
    }
  })
}

const sum = (values: readonly number[]) => values.reduce((total, value) => total + value, 0)
