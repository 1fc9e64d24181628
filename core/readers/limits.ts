import { DAY } from '../time'

/** What somebody asked for about how much mail they get; kept until they ask for something else. */
export interface OwnLimits {
  /** No mailings until then, UTC milliseconds; null: never asked for a pause. */
  pausedUntil: number | null
  /** At most one mailing in so many days; null: no limit of their own. */
  oneInDays: number | null
}

/** For how long readers may ask to get nothing. */
export const pauseWeeks = [2, 4, 8] as const
/** The limit that is offered: at most one mailing in so many days. */
export const WEEKLY = 7

export const pauseUntil = (weeks: number, now: number) => now + weeks * 7 * DAY

export const isPaused = ({ pausedUntil }: OwnLimits, now: number) =>
  pausedUntil !== null && pausedUntil > now

/**
 * From when on somebody may be mailed by what they asked for; now or earlier: they may. `lastSentAt`: when a mailing was
 * accepted for them last.
 */
export function maySince({ pausedUntil, oneInDays }: OwnLimits, lastSentAt: number | null): number {
  const afterLast = oneInDays === null || lastSentAt === null ? 0 : lastSentAt + oneInDays * DAY
  return Math.max(pausedUntil ?? 0, afterLast)
}
