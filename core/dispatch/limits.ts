import { limits } from '../counting'

/** What came of people who were tried. */
export interface PartCounts {
  tried: number
  bounced: number
  complained: number
  deferred: number
}

/** Shares of those tried above which nobody else is mailed until somebody has looked. */
export interface Limits {
  bounced: number
  complained: number
  deferred: number
}

export const usualLimits: Limits = {
  bounced: limits.bounced,
  complained: limits.complained,
  deferred: limits.deferred,
}

/** How often a share that is just at its limit is taken for one above it, at most; and one of twice the limit for none. */
const ALPHA = 0.01
const BETA = 0.1

/**
 * Whether so many of so many are evidence that a limit is passed: Wald's sequential probability ratio test of the share
 * being the limit against its being twice that (A. Wald, Sequential Tests of Statistical Hypotheses, 1945). It may be
 * asked after every single one: that is what it is made for, and a few bad ones among the first are no evidence.
 */
export function isPassed(bad: number, tried: number, limit: number): boolean {
  if (limit <= 0) return bad > 0
  const twice = Math.min(limit * 2, 0.999)
  if (limit >= twice) return false
  const evidence =
    bad * Math.log(twice / limit) + (tried - bad) * Math.log((1 - twice) / (1 - limit))
  return evidence >= Math.log((1 - BETA) / ALPHA)
}

/** Why the next tier should not follow, in words; null where nothing is evidence against it. */
export function limitPassed(counts: PartCounts, given: Limits): string | null {
  const words = {
    bounced: 'bounced or were refused',
    complained: 'complained',
    deferred: 'were deferred by their provider',
  }
  for (const key of ['bounced', 'complained', 'deferred'] as const)
    if (isPassed(counts[key], counts.tried, given[key]))
      return `${counts[key].toLocaleString('en-GB')} of ${counts.tried.toLocaleString('en-GB')} ${words[key]} (${percent(counts[key] / counts.tried)}), which is more than chance above the limit of ${percent(given[key])}.`
  return null
}

/** What came since an earlier count. What was deferred then may have gone since. */
export function countsSince(now: PartCounts, then: PartCounts | null): PartCounts {
  const since = (key: keyof PartCounts) => Math.max(0, now[key] - (then?.[key] ?? 0))
  return {
    tried: since('tried'),
    bounced: since('bounced'),
    complained: since('complained'),
    deferred: since('deferred'),
  }
}

function percent(share: number): string {
  return `${(share * 100).toFixed(share < 0.01 ? 2 : 1)}%`
}
