import ICAL from 'ical.js'
import { isDay, type Day } from '../time'
import { isDayRule } from './moments'

/** A file of days off is not read where it is larger, bytes. */
export const MOST_OF_DAYS_OFF_FILE = 1_000_000
/** So many days off are kept with a wait; more than ten years of public holidays in any country. */
export const MOST_DAYS_OFF = 400
/** Days further ahead are left out. */
const YEARS = 3
/** So many times of one event are looked through: a hundred and ten years of days. */
const MOST_TIMES = 40_000
const LONGEST_EVENT = 60

/**
 * The days off in an iCalendar file (RFC 5545) from a day on, for three years: each day of its all-day events, with those
 * that recur. Events with hours, and those that were cancelled, are none. Or what is wrong with it, as a sentence.
 */
export function readDaysOff(text: string, from: Day): { days: Day[] } | { problem: string } {
  const until = `${Number(from.slice(0, 4)) + YEARS}${from.slice(4)}`
  const days = new Set<Day>()
  try {
    const parsed = ICAL.parse(text) as unknown[]
    // Of several calendars it is a list of what it is of one: its name, its properties, its parts.
    const calendars = typeof parsed[0] === 'string' ? [parsed] : parsed
    for (const calendar of calendars)
      for (const event of new ICAL.Component(calendar as never).getAllSubcomponents('vevent'))
        for (const day of daysOfEvent(event, from, until)) {
          days.add(day)
          if (days.size > MOST_DAYS_OFF)
            return { problem: `It has more than ${MOST_DAYS_OFF} days off in ${YEARS} years.` }
        }
  } catch {
    return { problem: 'This is no calendar file (iCalendar) that can be read.' }
  }
  return days.size
    ? { days: [...days].sort() }
    : { problem: `No all-day event in it falls in the next ${YEARS} years.` }
}

function* daysOfEvent(event: ICAL.Component, from: Day, until: Day): Generator<Day> {
  const start = event.getFirstPropertyValue('dtstart')
  if (!(start instanceof ICAL.Time) || !start.isDate) return
  if (event.getFirstPropertyValue('status') === 'CANCELLED') return
  // A rule that can never hold would be looked through without end.
  if (event.getAllProperties('rrule').some((one) => !isDayRule(String(one.getFirstValue())))) return
  const { duration } = new ICAL.Event(event)
  const long = Math.min(LONGEST_EVENT, Math.max(1, duration.weeks * 7 + duration.days))
  const times = new ICAL.RecurExpansion({ component: event, dtstart: start })
  for (let n = 0; n < MOST_TIMES; n++) {
    const time = times.next() as ICAL.Time | null
    if (!time || time.toString() >= until) return
    for (let ahead = 0; ahead < long; ahead++) {
      const at = time.clone()
      at.adjust(ahead, 0, 0, 0)
      const day = at.toString().slice(0, 10)
      if (isDay(day) && day >= from && day < until) yield day
    }
  }
}
