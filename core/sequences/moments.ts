import ICAL from 'ical.js'
import { addDays, isDay, minuteOfDay, startOfDay, type Day } from '../time'

/** A moment that lets in a whole segment: once, or again by a calendar rule. */
export interface MomentStart {
  is: 'moment'
  /** Its first day, from which its rule counts. */
  from: Day
  /** On the account's clock. */
  hour: number
  /** A recurrence rule (RFC 5545, section 3.3.10): `FREQ=MONTHLY;BYDAY=1MO`. Null: once. */
  rule: string | null
  /** Who comes in; 0: everybody on the list. */
  segmentId: number
}

const LONGEST_RULE = 200
/** Oftener than once a day nobody is let in. */
const frequencies = ['DAILY', 'WEEKLY', 'MONTHLY', 'YEARLY']

/** Whether a text is a recurrence rule of days; hours and minutes are not its to say. */
export function isDayRule(rule: unknown): rule is string {
  if (typeof rule !== 'string' || rule.length > LONGEST_RULE) return false
  if (/BY(HOUR|MINUTE|SECOND)/i.test(rule)) return false
  try {
    const { freq } = ICAL.Recur.fromString(rule)
    // A rule that can never hold is found by looking for its first day.
    return frequencies.includes(freq) && daysFrom(rule, '2024-02-29').next() !== null
  } catch {
    return false
  }
}

/** So many of its days are looked through: a hundred and ten years of them. */
const MOST_LOOKED_AT = 40_000

/** The first moment behind a time at which a start lets people in; null where there is none any more. */
export function nextMoment(
  { from, hour, rule }: Pick<MomentStart, 'from' | 'hour' | 'rule'>,
  after: number,
  zone: string,
): number | null {
  const onDay = (day: Day) => minuteOfDay(startOfDay(day, zone), hour * 60, zone)
  if (rule === null) return onDay(from) > after ? onDay(from) : null
  const days = daysFrom(rule, from)
  // Days are compared as text until one can be the next, since reckoning its moment costs more.
  const near = new Date(addDays(after, -2, zone)).toISOString().slice(0, 10)
  for (let looked = 0; looked < MOST_LOOKED_AT; looked++) {
    const day = days.next()
    if (day === null) return null
    if (day >= near && onDay(day) > after) return onDay(day)
  }
  return null
}

/** The days of a rule, in their order. A day without an hour is the same everywhere. */
function daysFrom(rule: string, from: Day): { next(): Day | null } {
  const days = ICAL.Recur.fromString(rule).iterator(ICAL.Time.fromDateString(from))
  return {
    next() {
      // The package says that it is always a time, and gives nothing where the rule has ended.
      const day = (days.next() as ICAL.Time | null)?.toString() ?? null
      return isDay(day) ? day : null
    },
  }
}
