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
