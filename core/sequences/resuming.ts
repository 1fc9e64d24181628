import { DAY } from '../time'
import { lotOf } from './lot'

/** When a sequence went on after a pause, and over how long those who waited go on, ms; 0: all at once. */
export interface Resuming {
  at: number
  spread: number
}

export const LONGEST_SPREAD = 30 * DAY

/**
 * When somebody's turn is who was due at a time, UTC ms: spread evenly by lot over the time after a pause for those who
 * were due before it was over, and then always the same; otherwise when they are due.
 */
export function turnOf(
  due: number,
  { at, spread }: Resuming,
  of: { sequence: number; person: number; round: number },
): number {
  if (spread === 0 || due > at) return due
  // Behind the moment itself, so that nobody's turn is drawn twice.
  return at + 1 + Math.floor(lotOf(of.sequence, 'resumed', of.person, of.round) * spread)
}
