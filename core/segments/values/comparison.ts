import { isDay, type Day } from '../../time'

/** What is asked of one value. Each comparison is for values of one family. */
export type Comparison =
  | { is: 'empty' | 'known' }
  | TextComparison
  | { is: 'includes' | 'includes-not'; text: string }
  | NumberComparison
  | { is: 'yes' | 'no' }
  | TimeComparison
  | { is: 'anniversary'; days: number }

export type TextComparison =
  | { is: 'equal' | 'not-equal' | 'contains' | 'starts' | 'ends'; text: string }
  | { is: 'one-of'; texts: string[] }

export type NumberComparison =
  | { is: 'number'; than: (typeof thans)[number]; number: number }
  | { is: 'between'; from: number; to: number }

export const thans = ['equal', 'not-equal', 'under', 'over', 'at-least', 'at-most'] as const

/** Asked of moments and of days; both ends of `from-to` are in it. "In the last N days" is the N × 24 h up to now. */
export type TimeComparison =
  | { is: 'before' | 'after' | 'on'; day: Day }
  | { is: 'from-to'; from: Day; to: Day }
  | { is: 'last-days' | 'next-days'; days: number }

/** What kind of value a comparison is for; `any` where it asks only whether there is one. */
export type Family = 'any' | 'text' | 'choices' | 'number' | 'yesno' | 'day'

export function familyOf(comparison: Comparison): Family {
  switch (comparison.is) {
    case 'empty':
    case 'known':
      return 'any'
    case 'equal':
    case 'not-equal':
    case 'contains':
    case 'starts':
    case 'ends':
    case 'one-of':
      return 'text'
    case 'includes':
    case 'includes-not':
      return 'choices'
    case 'number':
    case 'between':
      return 'number'
    case 'yes':
    case 'no':
      return 'yesno'
    default:
      return 'day'
  }
}

/** The family of an event's property, told from what is asked of it. */
export function propertyFamily(test: Comparison): Exclude<Family, 'choices' | 'day'> {
  const family = familyOf(test)
  return family === 'choices' || family === 'day' ? 'text' : family
}

/** The longest time a rule may speak of: a hundred years. */
export const MOST_DAYS = 36_500

/** Reads a comparison from JSON that came from outside; null where it is none. */
export function readComparison(json: unknown): Comparison | null {
  if (typeof json !== 'object' || json === null) return null
  const of = json as Record<string, unknown>
  switch (of.is) {
    case 'empty':
    case 'known':
    case 'yes':
    case 'no':
      return { is: of.is }
    case 'equal':
    case 'not-equal':
    case 'contains':
    case 'starts':
    case 'ends':
    case 'includes':
    case 'includes-not':
      return isText(of.text) ? { is: of.is, text: of.text } : null
    case 'one-of':
      return Array.isArray(of.texts) &&
        of.texts.length > 0 &&
        of.texts.length <= 1_000 &&
        of.texts.every(isText)
        ? { is: 'one-of', texts: of.texts }
        : null
    case 'number':
      return thans.includes(of.than as 'equal') && isNumber(of.number)
        ? { is: 'number', than: of.than as 'equal', number: of.number }
        : null
    case 'between':
      return isNumber(of.from) && isNumber(of.to)
        ? { is: 'between', from: of.from, to: of.to }
        : null
    case 'anniversary':
      return isWhole(of.days, 0, 366) ? { is: 'anniversary', days: of.days } : null
    default:
      return readTime(json)
  }
}

export function readTime(json: unknown): TimeComparison | null {
  if (typeof json !== 'object' || json === null) return null
  const of = json as Record<string, unknown>
  switch (of.is) {
    case 'before':
    case 'after':
    case 'on':
      return isDay(of.day) ? { is: of.is, day: of.day } : null
    case 'from-to':
      return isDay(of.from) && isDay(of.to) ? { is: 'from-to', from: of.from, to: of.to } : null
    case 'last-days':
    case 'next-days':
      return isWhole(of.days, 1, MOST_DAYS) ? { is: of.is, days: of.days } : null
    default:
      return null
  }
}

export function isWhole(
  value: unknown,
  min: number,
  max = Number.MAX_SAFE_INTEGER,
): value is number {
  return Number.isSafeInteger(value) && (value as number) >= min && (value as number) <= max
}

export function isText(value: unknown): value is string {
  return typeof value === 'string' && value.trim() !== '' && value.length <= 500
}

/** Whether JSON says how many days back something counts: null or nothing is ever. */
export function isWithin(value: unknown): value is number | null | undefined {
  return value == null || isWhole(value, 1, MOST_DAYS)
}

function isNumber(value: unknown): value is number {
  return typeof value === 'number' && Number.isFinite(value)
}

/** Several texts in one line: apart by commas, those that have one in quotes. */
export function showTexts(texts: readonly string[]): string {
  return texts
    .map((text) => (/[",]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text))
    .join(', ')
}

/** The texts of a line as {@link showTexts} writes them; what is in quotes keeps its commas. */
export function readTexts(line: string): string[] {
  return [...line.matchAll(/\s*(?:"((?:[^"]|"")*)"|([^,]*))\s*(?:,|$)/g)]
    .map(([, quoted, bare]) => (quoted?.replaceAll('""', '"') ?? bare ?? '').trim())
    .filter((text) => text !== '')
}
