import { DateTime } from 'luxon'
import type { Day } from './calendar'

/**
 * Days and times as people type them, and as they are shown in what they type into. One way for everybody, whatever
 * their browser: the day before the month, hours from 0 to 23.
 */

const months = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec']
const weekdays = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun']

/** "23 Nov 2026". */
export function dateText(day: Day): string {
  return DateTime.fromISO(day, { zone: 'utc', locale: 'en-GB' }).toFormat('d LLL yyyy')
}

/** "Mon 23 Nov 2026". */
export function dayText(day: Day): string {
  return DateTime.fromISO(day, { zone: 'utc', locale: 'en-GB' }).toFormat('ccc d LLL yyyy')
}

/** "Mon 23 Nov 2026 09:40", of a day and time on the wall ("2026-11-23T09:40"). */
export function momentText(local: string): string {
  return DateTime.fromISO(local, { zone: 'utc', locale: 'en-GB' }).toFormat('ccc d LLL yyyy HH:mm')
}

/**
 * Reads a typed day: "23 Nov 2026", "Mon 23 November", "23.11.", "23/11/2026", "2026-11-23", "today", "tomorrow",
 * "friday". Without a year it is the next such day from today on; null where it is none.
 */
export function readDayText(text: string, today: Day): Day | null {
  const plain = text
    .toLowerCase()
    .replace(/[,\s]+/g, ' ')
    .trim()
  const from = DateTime.fromISO(today, { zone: 'utc' })
  if (plain === 'today') return today
  if (plain === 'tomorrow') return dayAfter(from, 1)
  const weekday = weekdays.findIndex((one) => /^[a-z]{3,9}$/.test(plain) && plain.startsWith(one))
  if (weekday >= 0) return dayAfter(from, ((weekday + 1 - from.weekday + 6) % 7) + 1)
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(plain)
  if (iso) return dayFrom(Number(iso[1]), Number(iso[2]), Number(iso[3]))
  const numbers = /^(\d{1,2})[./-](\d{1,2})(?:[./-](\d{4}|\d{2})?)?$/.exec(plain)
  if (numbers) return withYear(from, numbers[1]!, Number(numbers[2]), numbers[3])
  const words =
    /^(?:[a-z]{2,9}\.? )?(\d{1,2})(?:st|nd|rd|th)?\.? ([a-z]{3,9})\.?(?: (\d{4}|\d{2}))?$/.exec(
      plain,
    )
  if (!words) return null
  const month = months.indexOf(words[2]!.slice(0, 3)) + 1
  return month > 0 ? withYear(from, words[1]!, month, words[3]) : null
}

/** Reads a typed time of day as "HH:mm": "9", "9:40", "09.40", "0940", "9am", "9:40 pm", "noon"; null where it is none. */
export function readTimeText(text: string): string | null {
  const plain = text.trim().toLowerCase()
  if (plain === 'noon') return '12:00'
  if (plain === 'midnight') return '00:00'
  const read = /^(\d{1,2})(?:[:.h]?(\d{2}))?\s*(am|pm)?$/.exec(plain)
  if (!read) return null
  const [hour, minute] = [Number(read[1]), Number(read[2] ?? 0)]
  if (minute > 59 || hour > (read[3] ? 12 : 23) || (read[3] && hour === 0)) return null
  const full = read[3] ? (hour % 12) + (read[3] === 'pm' ? 12 : 0) : hour
  return `${String(full).padStart(2, '0')}:${String(minute).padStart(2, '0')}`
}

/** Reads a typed day and time as "2026-11-23T09:40"; null where either is missing or none. */
export function readMomentText(text: string, today: Day): string | null {
  const plain = text.trim().replace(/\bat\b/gi, ' ')
  const iso = /^(\d{4}-\d{2}-\d{2})T(\d{2}:\d{2})/i.exec(plain)
  const at = iso
    ? [iso[1]!, iso[2]!]
    : (/^(.*\S)[\s,]+(\d{1,2}[:.]\d{2}(?:\s*[ap]m)?|\d{1,2}\s*[ap]m|noon|midnight)$/i
        .exec(plain)
        ?.slice(1) ?? null)
  if (!at) return null
  const [day, time] = [readDayText(at[0]!, today), readTimeText(at[1]!)]
  return day && time && `${day}T${time}`
}

function withYear(from: DateTime, day: string, month: number, year?: string): Day | null {
  if (year !== undefined) {
    const short = year.length === 2
    return dayFrom(short ? 2000 + Number(year) : Number(year), month, Number(day))
  }
  const thisYear = dayFrom(from.year, month, Number(day))
  if (thisYear && thisYear >= from.toISODate()!) return thisYear
  return dayFrom(from.year + 1, month, Number(day)) ?? thisYear
}

function dayFrom(year: number, month: number, day: number): Day | null {
  const made = DateTime.utc(year, month, day)
  return made.isValid && year >= 1000 ? made.toISODate() : null
}

const dayAfter = (from: DateTime, days: number): Day => from.plus({ days }).toISODate()!
