import { HOUR, MINUTE } from '../time'

/** A deferred message is given up this long after its first attempt. */
export const GIVE_UP_AFTER = 48 * HOUR

/**
 * When to try a deferred message again: exponential backoff from 5 minutes to 4 hours, spread by
 * ±20% so that those deferred together don't return together. Null when it is time to give up.
 * `chance` is a random number in 0..1.
 */
export function nextAttempt(
  attempts: number,
  firstAt: number,
  now: number,
  chance: number,
): number | null {
  const wait = Math.min(4 * HOUR, 5 * MINUTE * 2 ** (Math.max(1, attempts) - 1))
  const at = Math.round(now + wait * (0.8 + 0.4 * chance))
  return at - firstAt > GIVE_UP_AFTER ? null : at
}
