import type { TimeComparison } from '~~/core/segments'

/** Comparisons with days that somebody chooses. */
export type DayKind = 'before' | 'after' | 'on' | 'from-to'

/** A comparison of another kind with the days that were there before, else with today. */
export function withDay(is: DayKind, was: object | null, today: string): TimeComparison {
  const from =
    was && 'day' in was && typeof was.day === 'string'
      ? was.day
      : was && 'from' in was && typeof was.from === 'string'
        ? was.from
        : today
  return is === 'from-to' ? { is, from, to: today > from ? today : from } : { is, day: from }
}
