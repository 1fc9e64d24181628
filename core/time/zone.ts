import { DateTime, IANAZone } from 'luxon'

/** Whether a name such as "Europe/London" is a time zone this machine knows. */
export function isZone(name: string): boolean {
  return IANAZone.isValidZone(name)
}

/** The first moment of the calendar day in which `at` falls, in `zone`. */
export function dayStart(at: number, zone: string): number {
  return DateTime.fromMillis(at, { zone }).startOf('day').toMillis()
}

/** A calendar day of a zone: from its first moment up to that of the next; `weekday`: 0 is Sunday. */
export interface LocalDay {
  start: number
  end: number
  weekday: number
}

/** Zones change by quarters of an hour, so that the day is the same for all moments of one. */
const QUARTER = 15 * 60_000
const MOST_KEPT = 20_000

/** The day in which `at` falls, in `zone`. Reckoning one takes long, so those that were asked for are kept. */
export function localDay(at: number, zone: string): LocalDay {
  let kept = daysOf.get(zone)
  if (!kept || kept.size > MOST_KEPT) daysOf.set(zone, (kept = new Map()))
  const quarter = Math.floor(at / QUARTER)
  let day = kept.get(quarter)
  if (!day) {
    const start = DateTime.fromMillis(at, { zone }).startOf('day')
    const end = start.plus({ days: 1 }).startOf('day').toMillis()
    kept.set(quarter, (day = { start: start.toMillis(), end, weekday: start.weekday % 7 }))
  }
  return day
}
const daysOf = new Map<string, Map<number, LocalDay>>()

/** The first moment of the day `days` calendar days later; right across changes of summer time. */
export function addDays(at: number, days: number, zone: string): number {
  return DateTime.fromMillis(at, { zone }).plus({ days }).toMillis()
}

/** When it is next so many o'clock in `zone`: now, where it is that hour already, else within a day. */
export function nextHour(hour: number, at: number, zone: string): number {
  const now = DateTime.fromMillis(at, { zone })
  const today = now.set({ hour, minute: 0, second: 0, millisecond: 0 })
  if (now.hour === hour) return at
  return (today > now ? today : today.plus({ days: 1 })).toMillis()
}

/** The hour of the day, 0 to 23, in `zone`. */
export function hourOf(at: number, zone: string): number {
  return DateTime.fromMillis(at, { zone }).hour
}

/** A minute of the day in which `at` falls, by the clock of `zone`; where that is left out, the next that there is. */
export function minuteOfDay(at: number, minute: number, zone: string): number {
  const day = DateTime.fromMillis(at, { zone }).startOf('day')
  if (minute === 24 * 60) return day.plus({ days: 1 }).toMillis()
  const found = day.set({ hour: Math.floor(minute / 60), minute: minute % 60 })
  const isThere = found.hour * 60 + found.minute === minute
  return (isThere ? found : found.startOf('hour')).toMillis()
}

/** "Monday 23 November". */
export function dayLabel(at: number, zone: string): string {
  return DateTime.fromMillis(at, { zone, locale: 'en-GB' }).toFormat('cccc d LLLL')
}

/** "Mon 23 Nov 09:40". */
export function timeLabel(at: number, zone: string): string {
  return DateTime.fromMillis(at, { zone, locale: 'en-GB' }).toFormat('ccc d LLL HH:mm')
}

/** What a date-and-time field holds ("2026-11-23T09:40"), read in `zone`; null where it is no time. */
export function localInputToTime(text: string, zone: string): number | null {
  const read = DateTime.fromISO(text, { zone })
  return read.isValid ? read.toMillis() : null
}

/** The other way round, to the minute. */
export function timeToLocalInput(at: number, zone: string): string {
  return DateTime.fromMillis(at, { zone }).toFormat("yyyy-MM-dd'T'HH:mm")
}

/** The same hour on the clock a day, a week or a month later; a day that the month lacks is its last. */
export function sameHourAfter(at: number, every: 'day' | 'week' | 'month', zone: string): number {
  return DateTime.fromMillis(at, { zone })
    .plus({ [every]: 1 })
    .toMillis()
}

/** Every time zone, with how far it is from UTC at a moment ("UTC+05:30") and the words by which it is found. */
export function zones(at: number): { name: string; offset: string; words: string }[] {
  return ['UTC', ...Intl.supportedValuesOf('timeZone').filter((name) => name !== 'UTC')].map(
    (name) => ({
      name,
      offset: `UTC${DateTime.fromMillis(at, { zone: name }).toFormat('ZZ')}`,
      words: name.toLowerCase().replaceAll('_', ' '),
    }),
  )
}
