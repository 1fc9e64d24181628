/**
 * How the dates of a column are read: the order of their parts, or what a bare number counts: seconds or milliseconds
 * since 1970 (UTC), or days of a spreadsheet. Dates with the year first or with the month's name read alike in every order.
 */
export const dateOrders = ['dmy', 'mdy', 'ymd', 'unix', 'serial'] as const
export type DateOrder = (typeof dateOrders)[number]

/** The languages whose names of months are read. */
const languages = ['en', 'de', 'fr', 'es', 'it', 'nl', 'pt']

const separated = /^(\d{1,4})[./\- ](\d{1,2})[./\- ](\d{1,4})\.?$/
const cjk = /^(\d{4})\s*[年년]\s*(\d{1,2})\s*[月월]\s*(\d{1,2})\s*[日일]$/
/** What may stand behind a day: a time, its half of the day, its zone (ISO 8601, and as people write it). */
const timeBehind =
  /(?:[T,]\s*|\s+(?:at\s+)?)\d{1,2}[:.]\d{2}(?:[:.]\d{2}(?:[.,]\d+)?)?(?:\s*[ap]\.?m\.?)?(?:\s*(?:Z|UTC|GMT|[+-]\d{2}:?\d{2}|[+-]\d{2}|[A-Z]{3,4}))?$/i
const weekdayBefore = /^\p{L}{2,12}\.?,\s+/u

/**
 * Reads a written date as "YYYY-MM-DD"; null where it is none ("31/02/2021"). A time behind it is left off: the day counts
 * as it is written, in whatever zone. Years of two figures up to 39 are of this century.
 */
export function readDate(text: string, order: DateOrder): string | null {
  const trimmed = text.trim()
  if (order === 'unix') return ofUnix(trimmed) ?? readDate(trimmed, 'ymd')
  if (order === 'serial') return ofSerial(trimmed) ?? readDate(trimmed, 'ymd')
  // Most cells are figures apart by a sign; only the others are looked at more closely.
  const parts = separated.exec(trimmed) ?? separated.exec(dayOf(trimmed)) ?? cjk.exec(trimmed)
  if (!parts) return withMonthName(dayOf(trimmed))
  const [first, second, third] = [parts[1]!, parts[2]!, parts[3]!]
  const yearFirst = first.length === 4
  if (yearFirst && third.length > 2) return null
  if (yearFirst || order === 'ymd') return isoDate(first, Number(second), Number(third))
  return order === 'dmy'
    ? isoDate(third, Number(second), Number(first))
    : isoDate(third, Number(first), Number(second))
}

const dayOf = (text: string) => text.replace(timeBehind, '').replace(weekdayBefore, '').trim()

/** "March 3, 2024", "3 Mar 2024", "3. März 2024", "3 de marzo de 2024", "Mar-03-24". */
function withMonthName(text: string): string | null {
  if (!/\p{L}{3}/u.test(text) || text.length > 40) return null
  const words = text
    .replace(/(\d)(?:st|nd|rd|th|er|º|°)(?=[\s,.]|$)/i, '$1')
    .split(/[\s.,/-]+/)
    .filter((word) => word !== '' && !/^(de|del|of|the)$/i.test(word))
  if (words.length !== 3) return null
  const at = words.findIndex((word) => monthNamed(word) !== null)
  if (at < 0 || at > 1) return null
  const month = monthNamed(words[at]!)!
  const [one, two] = words.filter((_, i) => i !== at) as [string, string]
  if (!/^\d{1,4}$/.test(one) || !/^\d{1,4}$/.test(two)) return null
  return one.length === 4 ? isoDate(one, month, Number(two)) : isoDate(two, month, Number(one))
}

let months: Map<string, number> | null = null

/** The number of a month by its name, whole or short, without its accents and dot; null for any other word. */
function monthNamed(word: string): number | null {
  months ??= namesOfMonths()
  return months.get(plainWord(word)) ?? null
}

function namesOfMonths(): Map<string, number> {
  const names = new Map([['sept', 9]])
  for (const language of languages)
    for (const style of ['long', 'short'] as const) {
      const format = new Intl.DateTimeFormat(language, { month: style, timeZone: 'UTC' })
      for (let month = 1; month <= 12; month++)
        names.set(plainWord(format.format(Date.UTC(2024, month - 1, 15))), month)
    }
  return names
}

const plainWord = (word: string) =>
  word
    .normalize('NFKD')
    .replace(/[\p{M}.]/gu, '')
    .toLowerCase()

/** Seconds (9 or 10 figures) or milliseconds (12 or 13) since 1970: the day in UTC. */
function ofUnix(text: string): string | null {
  if (!/^\d{9,10}(\.\d+)?$|^\d{12,13}$/.test(text)) return null
  const ms = Number(text) * (/^\d{12}/.test(text) ? 1 : 1000)
  return new Date(ms).toISOString().slice(0, 10)
}

/** The day that spreadsheets count as 0, so that 1 March 1900 is 61 as with them (ISO/IEC 29500-1, 18.17.4.1). */
const SERIAL_ZERO = Date.UTC(1899, 11, 30)

function ofSerial(text: string): string | null {
  if (!/^\d{1,6}([.,]\d+)?$/.test(text)) return null
  const days = Math.floor(Number(text.replace(',', '.')))
  if (days < 61 || days > 109_574) return null
  return new Date(SERIAL_ZERO + days * 86_400_000).toISOString().slice(0, 10)
}

function isoDate(year: string, month: number, day: number): string | null {
  if (year.length !== 4 && year.length !== 2) return null
  const full = year.length === 4 ? Number(year) : Number(year) + (Number(year) < 40 ? 2000 : 1900)
  if (month < 1 || month > 12 || day < 1 || day > daysOf(full, month)) return null
  const two = (n: number) => String(n).padStart(2, '0')
  return `${String(full).padStart(4, '0')}-${two(month)}-${two(day)}`
}

/** How many days a month has; months count from 1. By arithmetic: imports ask a million times. */
function daysOf(year: number, month: number): number {
  if (month === 2) return (year % 4 === 0 && year % 100 !== 0) || year % 400 === 0 ? 29 : 28
  return month === 4 || month === 6 || month === 9 || month === 11 ? 30 : 31
}

/** How the values of a column read as dates. */
export interface DatesFound {
  /** The order under which most of them are dates. */
  order: DateOrder
  /** How many of them are, in that order. */
  dates: number
  /** Another order reads as many of them, and some of them as other days: only somebody who knows can tell. */
  ambiguous: boolean
}

/**
 * The order under which most of the values are dates. `mayBeNumbers`: the column is named as dates are, so that bare numbers
 * may be days of a spreadsheet; seconds and milliseconds of our time are so long that they need no name.
 */
export function dateOrderOf(values: readonly string[], mayBeNumbers = false): DatesFound {
  const yearFirst = values.filter((value) => /^\s*\d{4}\D/.test(value)).length * 2 > values.length
  const written: DateOrder[] = yearFirst ? ['ymd', 'dmy', 'mdy'] : ['dmy', 'mdy', 'ymd']
  const orders = [...written, 'unix' as const, ...(mayBeNumbers ? (['serial'] as const) : [])]
  const read = orders.map((order) => ({ order, days: values.map((value) => dayIn(value, order)) }))
  const counted = read.map((one) => ({ ...one, dates: one.days.filter(Boolean).length }))
  const best = counted.reduce((found, next) => (next.dates > found.dates ? next : found))
  const rival = counted.find(
    ({ order, days, dates }) =>
      written.includes(order) &&
      order !== best.order &&
      dates === best.dates &&
      days.some((day, i) => day !== best.days[i]),
  )
  return { order: best.order, dates: best.dates, ambiguous: rival !== undefined }
}

/** A day between 1900 and 2100; a number that reads as another is hardly meant for one. */
function dayIn(value: string, order: DateOrder): string | null {
  const day = readDate(value, order)
  return day !== null && day >= '1900' && day < '2100' ? day : null
}
