import { MINUTE } from '../time'

/** A token bucket: how many messages may go now, as of `at`. Holds at most a minute's worth. */
export interface Bucket {
  level: number
  at: number
}

/** The bucket as of `now`, filled at `perMinute`; null is no limit. A clock that leaps fills it once. */
export function refill(bucket: Bucket, perMinute: number | null, now: number): Bucket {
  if (perMinute === null) return { level: Infinity, at: now }
  const gained = (Math.max(0, now - bucket.at) * perMinute) / MINUTE
  const level = Number.isFinite(bucket.level) ? bucket.level : 0
  return { level: Math.min(perMinute, level + gained), at: now }
}

/** Takes up to `wanted` whole messages; how many may go, and what is left. */
export function takeFromBucket(bucket: Bucket, wanted: number): { taken: number; bucket: Bucket } {
  const taken = Math.max(0, Math.min(wanted, Math.floor(bucket.level)))
  return { taken, bucket: { ...bucket, level: bucket.level - taken } }
}

/** Says whether one more message may go to a provider now. */
export interface ProviderPacer {
  /** `now` where it may, and it counts as gone; else about when it will be this one's turn. */
  mayGo(domain: string, now: number): number
}

/** A bucket for each provider that has a pace of its own; null where none has. Times are milliseconds. */
export function providerPacer(
  paces: readonly { domain: string; perMinute: number }[],
): ProviderPacer | null {
  if (paces.length === 0) return null
  const of = new Map(
    paces.map(({ domain, perMinute }) => [
      domain,
      { perMinute, bucket: { level: 0, at: 0 } as Bucket, waiting: 0 },
    ]),
  )
  return {
    mayGo(domain, now) {
      const one = of.get(domain)
      if (!one) return now
      const { taken, bucket } = takeFromBucket(refill(one.bucket, one.perMinute, now), 1)
      one.bucket = bucket
      if (taken) {
        one.waiting = Math.max(0, one.waiting - 1)
        return now
      }
      // Only an estimate: whoever comes at that time asks again, so the pace holds whatever the order.
      one.waiting++
      return Math.ceil(now + ((one.waiting - bucket.level) * MINUTE) / one.perMinute)
    },
  }
}
