/** The order of the parts of a written date. ISO dates are understood in every order. */
export type DateOrder = 'dmy' | 'mdy' | 'ymd'

const separated = /^(\d{1,4})[./\- ](\d{1,2})[./\- ](\d{1,4})$/

/**
 * Reads a written date as "YYYY-MM-DD"; null where it is none ("31/02/2021").
 * Years of two figures up to 39 are of this century.
 */
export function readDate(text: string, order: DateOrder): string | null {
  const parts = separated.exec(text.trim())
  if (!parts) return null
  const [first, second, third] = [parts[1]!, parts[2]!, parts[3]!]
  const iso = first.length === 4
  if (iso && third.length > 2) return null
  const [year, month, day] =
    iso || order === 'ymd'
      ? [first, second, third]
      : order === 'dmy'
        ? [third, second, first]
        : [third, first, second]
  if (year.length !== 4 && year.length !== 2) return null
  const fullYear =
    year.length === 4 ? Number(year) : Number(year) + (Number(year) < 40 ? 2000 : 1900)
  const [monthNo, dayNo] = [Number(month), Number(day)]
  if (monthNo < 1 || monthNo > 12 || dayNo < 1 || dayNo > daysOf(fullYear, monthNo)) return null
  return `${String(fullYear).padStart(4, '0')}-${month.padStart(2, '0')}-${day.padStart(2, '0')}`
}

/** How many days a month has; months count from 1. By arithmetic: imports ask a million times. */
function daysOf(year: number, month: number): number {
  if (month === 2) return (year % 4 === 0 && year % 100 !== 0) || year % 400 === 0 ? 29 : 28
  return month === 4 || month === 6 || month === 9 || month === 11 ? 30 : 31
}

/**
 * The order under which most of the values are dates, and how many of them are. Where several fit, year
 * first if most begin with one of four figures, else day first.
 */
export function dateOrderOf(values: readonly string[]): { order: DateOrder; dates: number } {
  const yearFirst = values.filter((value) => /^\s*\d{4}\D/.test(value)).length * 2 > values.length
  const orders: DateOrder[] = yearFirst ? ['ymd', 'dmy', 'mdy'] : ['dmy', 'mdy', 'ymd']
  const counted = orders.map((order) => ({
    order,
    dates: values.filter((value) => readDate(value, order) !== null).length,
  }))
  return counted.reduce((best, next) => (next.dates > best.dates ? next : best))
}

/** Reads a number written with a decimal point or comma and with or without grouping; null where it is none. */
export function readNumber(text: string, decimal: '.' | ','): number | null {
  const group = decimal === '.' ? ',' : '.'
  const bare = text
    .trim()
    .replaceAll(group, '')
    .replace(/[\s' ]/g, '')
    .replace(decimal, '.')
  return /^[+-]?\d+(\.\d+)?$/.test(bare) ? Number(bare) : null
}

const yes = new Set(['yes', 'y', 'true', '1', 'on', 'x', 'ja', 'oui', 'si', 'sí'])
const no = new Set(['no', 'n', 'false', '0', 'off', 'nein', 'non'])

/** Reads "yes" and "no" in their usual spellings; null for anything else. */
export function readYesNo(text: string): boolean | null {
  const word = text.trim().toLowerCase()
  return yes.has(word) ? true : no.has(word) ? false : null
}
