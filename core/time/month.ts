import { DateTime } from 'luxon'
import type { Day } from './calendar'

/** The weeks of the month of a day, Monday first; days of the months beside it fill the first and the last. */
export function monthOf(day: Day): { name: string; weeks: Day[][] } {
  const first = DateTime.fromISO(day, { zone: 'utc', locale: 'en-GB' }).startOf('month')
  const from = first.startOf('week')
  const weeks: Day[][] = []
  for (let start = from; start <= first.endOf('month'); start = start.plus({ weeks: 1 }))
    weeks.push(Array.from({ length: 7 }, (_, n) => start.plus({ days: n }).toISODate()!))
  return { name: first.toFormat('LLLL yyyy'), weeks }
}

/** So many days later, or earlier. */
export function daysLater(day: Day, n: number): Day {
  return DateTime.fromISO(day, { zone: 'utc' }).plus({ days: n }).toISODate()!
}

/** So many months later, or earlier; a day that the month lacks is its last. */
export function monthsLater(day: Day, n: number): Day {
  return DateTime.fromISO(day, { zone: 'utc' }).plus({ months: n }).toISODate()!
}
