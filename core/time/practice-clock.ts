import { MINUTE } from './clock'

/**
 * The clock of the practice world, as stored: at the host's time `anchorReal` it showed
 * `anchorPractice`, and since then it runs `rate` times as fast. While `jumpTo` is set it is on
 * its way to that time by leaps, and stands still between them.
 */
export interface PracticeClock {
  anchorReal: number
  anchorPractice: number
  rate: number
  jumpTo: number | null
}

/** The rates the top bar offers. */
export const practiceRates = [1, 60, 3600] as const

/** What the practice clock shows when the host's clock shows `real`. Never goes back. */
export function practiceTime(clock: PracticeClock, real: number): number {
  if (clock.jumpTo !== null) return clock.anchorPractice
  return Math.floor(clock.anchorPractice + Math.max(0, real - clock.anchorReal) * clock.rate)
}

/** The same clock running at another rate from now on. */
export function withRate(clock: PracticeClock, real: number, rate: number): PracticeClock {
  return { anchorReal: real, anchorPractice: practiceTime(clock, real), rate, jumpTo: null }
}

/** The clock after one leap; arriving at the end of the jump it runs on by itself. */
export function leapTo(clock: PracticeClock, real: number, practice: number): PracticeClock {
  const arrived = clock.jumpTo === null || practice >= clock.jumpTo
  return {
    ...clock,
    anchorReal: real,
    anchorPractice: Math.max(practice, practiceTime(clock, real)),
    jumpTo: arrived ? null : clock.jumpTo,
  }
}

/**
 * Where a jump leaps next. It stops at whatever is due on the way, so that a mailing set for
 * tomorrow goes out tomorrow and not at the far end of a jump of a week, but takes no steps
 * shorter than a minute, nor longer than half an hour (readers come and go between).
 */
export function nextLeap(now: number, target: number, nextDue: number | null): number {
  const soonest = now + MINUTE
  const longest = Math.max(30 * MINUTE, (target - now) / 96)
  const wanted = nextDue === null ? Infinity : Math.max(soonest, nextDue)
  return Math.floor(Math.min(target, wanted, now + longest))
}
