import { MINUTE } from '../time'

/** How many had been tried at a moment. */
export interface Sample {
  at: number
  tried: number
}

/** Of those who wait for a time that is still to come: how many, and when the first and the last of them are due. */
export interface DueLater {
  people: number
  first: number
  last: number
}

/** The rate is what the last minute came to: long enough to be calm, short enough to be true. */
const WINDOW = MINUTE
/** In less time than this a rate would be chance, ms. */
const SHORTEST = 2_000

/** The samples with one more, without those that no later rate needs. Where fewer were tried than before, it begins anew. */
export function withSample(samples: readonly Sample[], next: Sample): Sample[] {
  const last = samples.at(-1)
  if (last && (next.tried < last.tried || next.at < last.at)) return [next]
  return within([...samples, next], next.at)
}

/** Those of the last minute, and the newest before it: what the minute came to is counted from that. */
function within(samples: readonly Sample[], now: number): Sample[] {
  return samples.slice(
    Math.max(
      0,
      samples.findLastIndex(({ at }) => at <= now - WINDOW),
    ),
  )
}

/** Messages a minute over the last minute, as far as there are samples; null where that can't be said yet. */
export function rateOf(samples: readonly Sample[], now: number): number | null {
  const [first] = within(samples, now)
  const last = samples.at(-1)
  if (!first || !last || now - first.at < SHORTEST) return null
  return ((last.tried - first.tried) / (now - first.at)) * MINUTE
}

/** How long so many take at a rate of so many a minute, ms; null where nothing moves. */
export function timeLeft(waiting: number, rate: number | null): number | null {
  return rate ? (waiting / rate) * MINUTE : null
}
