import { DateTime } from 'luxon'

/** A calendar day, "2026-11-23". Days in this form compare as text. */
export type Day = string

export function isDay(text: unknown): text is Day {
  return (
    typeof text === 'string' &&
    /^\d{4}-\d{2}-\d{2}$/.test(text) &&
    DateTime.fromISO(text, { zone: 'utc' }).isValid
  )
}

/** The calendar day of a moment in `zone`. */
export function dayOf(at: number, zone: string): Day {
  return DateTime.fromMillis(at, { zone }).toFormat('yyyy-MM-dd')
}

/** The first moment of a day in `zone`. */
export function startOfDay(day: Day, zone: string): number {
  return DateTime.fromISO(day, { zone }).startOf('day').toMillis()
}

/** The day after. */
export function nextDay(day: Day): Day {
  return DateTime.fromISO(day, { zone: 'utc' }).plus({ days: 1 }).toFormat('yyyy-MM-dd')
}

/**
 * The anniversaries ("MM-DD") that fall on the days from `first` on to `days` days later. 29 February
 * counts on 28 February in years that have none.
 */
export function anniversariesFrom(first: Day, days: number): string[] {
  const found = new Set<string>()
  let day = DateTime.fromISO(first, { zone: 'utc' })
  for (let i = 0; i <= Math.min(days, 366); i++) {
    found.add(day.toFormat('MM-dd'))
    if (day.month === 2 && day.day === 28 && !day.isInLeapYear) found.add('02-29')
    day = day.plus({ days: 1 })
  }
  return [...found]
}
