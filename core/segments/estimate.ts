import { Z95 } from '../counting'
import { factsAsOf } from './as-of'
import type { Asked } from './values/moments'
import type { PersonFacts } from './person-facts'
import type { ReadyRule } from './ready'
import { ruleToPredicate } from './to-predicate'

/** Part of everybody, and those of it who were drawn at random. */
export interface Stratum {
  size: number
  drawn: readonly PersonFacts[]
}

/** How many people a rule kept at a moment, with the bounds that hold it with 95% confidence. */
export interface Estimate {
  at: number
  size: number
  low: number
  high: number
}

const z = Z95

/**
 * How many people a rule kept at earlier moments, reckoned from people drawn out of each part of
 * everybody (stratified sampling; W. G. Cochran, Sampling Techniques, 5.3–5.6, with the finite population
 * correction). Where everybody was drawn it is a count and the bounds meet. What has no time, values and
 * tags, is taken as it is now.
 */
export function estimateSizes(
  rule: ReadyRule | null,
  asked: Asked,
  strata: readonly Stratum[],
  moments: readonly number[],
): Estimate[] {
  return moments.map((at) => {
    const predicate = ruleToPredicate(rule, { ...asked, now: at })
    let size = 0
    let variance = 0
    for (const { size: people, drawn } of strata) {
      if (drawn.length === 0) continue
      const hits = drawn.reduce((n, person) => n + Number(held(predicate, person, at)), 0)
      size += (people * hits) / drawn.length
      // Two hits and two misses more keep the variance from being 0 where all or none were hits.
      const share = (hits + 2) / (drawn.length + 4)
      const notDrawn = 1 - drawn.length / people
      variance += (people ** 2 * share * (1 - share) * notDrawn) / drawn.length
    }
    const spread = z * Math.sqrt(Math.max(0, variance))
    const most = strata.reduce((sum, { size: people }) => sum + people, 0)
    return {
      at,
      size: Math.round(size),
      low: Math.max(0, Math.round(size - spread)),
      high: Math.min(most, Math.round(size + spread)),
    }
  })
}

function held(predicate: (person: PersonFacts) => boolean, person: PersonFacts, at: number) {
  const then = factsAsOf(person, at)
  return then !== null && predicate(then)
}

/** What a rule’s size was over the last weeks, reckoned from some people. */
export interface PastSizes {
  /** People looked at, out of everyone. */
  drawn: number
  everyone: number
  sizes: Estimate[]
}
