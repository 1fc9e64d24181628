import { anniversariesFrom, DAY, dayOf, nextDay, startOfDay } from '../../time'
import type { TimeComparison } from './comparison'

/** The moment a rule is asked for, and the zone its days are those of. */
export interface Asked {
  now: number
  zone: string
}

/** Moments: `from` ≤ t < `to`; a bound that is missing is none. */
export interface MomentRange {
  from?: number
  to?: number
}

/** The moments a comparison means. */
export function momentsOf(comparison: TimeComparison, { now, zone }: Asked): MomentRange {
  switch (comparison.is) {
    case 'before':
      return { to: startOfDay(comparison.day, zone) }
    case 'after':
      return { from: startOfDay(nextDay(comparison.day), zone) }
    case 'on':
      return {
        from: startOfDay(comparison.day, zone),
        to: startOfDay(nextDay(comparison.day), zone),
      }
    case 'from-to':
      return {
        from: startOfDay(comparison.from, zone),
        to: startOfDay(nextDay(comparison.to), zone),
      }
    case 'last-days':
      return { from: now - comparison.days * DAY + 1, to: now + 1 }
    case 'next-days':
      return { from: now + 1, to: now + comparison.days * DAY + 1 }
  }
}

/** Days as text: `after` < d ≤ `upTo`, or `before` > d. */
export interface DayRange {
  after?: string
  upTo?: string
  before?: string
}

/**
 * The days a comparison means. A day counts as its first moment in the zone, so the last N days are
 * those that began in the N × 24 h up to now.
 */
export function daysOf(comparison: TimeComparison, { now, zone }: Asked): DayRange {
  switch (comparison.is) {
    case 'before':
      return { before: comparison.day }
    case 'after':
      return { after: comparison.day }
    case 'on':
      return { upTo: comparison.day, after: dayBefore(comparison.day) }
    case 'from-to':
      return { after: dayBefore(comparison.from), upTo: comparison.to }
    case 'last-days':
      return { after: dayOf(now - comparison.days * DAY, zone), upTo: dayOf(now, zone) }
    case 'next-days':
      return { after: dayOf(now, zone), upTo: dayOf(now + comparison.days * DAY, zone) }
  }
}

/** Text that is less than a day and not less than the day before: enough to compare with. */
function dayBefore(day: string): string {
  return `${day.slice(0, -1)}${String.fromCharCode(day.charCodeAt(day.length - 1) - 1)}~`
}

/** The days, without their year, on which an anniversary within so many days falls: today is the first of them. */
export function anniversariesWithin(days: number, { now, zone }: Asked): string[] {
  return anniversariesFrom(dayOf(now, zone), Math.max(0, days - 1))
}

/** The moment from which on "within the last N days" counts; null: ever. */
export function sinceOf(withinDays: number | null, now: number): number | null {
  return withinDays === null ? null : now - withinDays * DAY + 1
}
