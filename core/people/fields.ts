import { readDate, type DateOrder } from './dates'
import { readNumber, readYesNo, type YesNoWords } from './values'

export const fieldKinds = ['text', 'number', 'date', 'choice', 'choices', 'yesno', 'link'] as const
export type FieldKind = (typeof fieldKinds)[number]

/** A field of the account: typed data on every person. */
export interface Field {
  key: string
  name: string
  kind: FieldKind
}

/** Dates are "YYYY-MM-DD"; several choices are a list. */
export type FieldValue = string | number | boolean | string[]

/** How the text of a cell is to be read. */
export interface ReadingHints {
  dateOrder?: DateOrder | undefined
  decimal?: '.' | ',' | undefined
  separator?: string | undefined
  words?: YesNoWords | undefined
}

/**
 * Reads the text of a cell as a value of `kind`. Empty text is `null` (no value); text that is no
 * such value is `undefined`.
 */
export function readFieldValue(
  text: string,
  kind: FieldKind,
  hints: ReadingHints = {},
): FieldValue | null | undefined {
  const trimmed = text.trim()
  if (trimmed === '') return null
  switch (kind) {
    case 'number':
      return readNumber(trimmed, hints.decimal ?? '.') ?? undefined
    case 'date':
      return readDate(trimmed, hints.dateOrder ?? 'dmy') ?? undefined
    case 'yesno':
      return readYesNo(trimmed, hints.words) ?? undefined
    case 'choices': {
      const parts = splitValues(trimmed, hints.separator ?? '|')
      return parts.length ? parts : null
    }
    case 'link':
      return /^https?:\/\/\S+$/i.test(trimmed) ? trimmed : undefined
    case 'text':
    case 'choice':
      return trimmed.normalize('NFC')
  }
}

/** A value of one kind as one of another; null where it can't be. */
export function convertValue(value: FieldValue, kind: FieldKind): FieldValue | null {
  if (Array.isArray(value) && kind === 'choices') return value
  return readFieldValue(showFieldValue(value), kind, { separator: ',' }) ?? null
}

/** The kinds of field that something can be added to. */
export const kindsAddedTo: readonly FieldKind[] = ['number', 'choices']

/**
 * A field's value and what is added to it, as it is typed: numbers are summed (none counts as 0), choices stand beside
 * those that are there. Null where nothing can be added.
 */
export function addToValue(
  value: FieldValue | null | undefined,
  typed: string,
  kind: FieldKind,
): FieldValue | null {
  const more = readFieldValue(typed, kind, { separator: ',' }) ?? null
  if (typeof more === 'number') {
    // As many digits as a number of this kind holds: 0.1 and 0.2 are 0.3.
    const sum = Number(((typeof value === 'number' ? value : 0) + more).toPrecision(15))
    return Number.isFinite(sum) ? sum : null
  }
  if (!Array.isArray(more)) return null
  return [...new Set([...(Array.isArray(value) ? value : []), ...more])]
}

/** A value as people read it. */
export function showFieldValue(value: FieldValue | null | undefined): string {
  if (value === null || value === undefined) return ''
  if (Array.isArray(value)) return value.join(', ')
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  return String(value)
}

/** The key under which a field's values are kept and filled in: "Member since" → "member_since". */
export function fieldKeyFor(name: string, taken: ReadonlySet<string> = new Set()): string {
  const stem =
    name
      .normalize('NFKD')
      .replace(/\p{M}/gu, '')
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '_')
      .replace(/^_+|_+$/g, '')
      .replace(/^(?=\d)/, 'f_')
      .slice(0, 40) || 'field'
  let key = stem
  for (let n = 2; taken.has(key); n++) key = `${stem}_${n}`
  return key
}

/** The values of a cell that holds several, without empties, repeats and the quotation marks around them. */
export function splitValues(text: string, separator: string): string[] {
  return [...new Set(text.split(separator).map((part) => unquoted(part).normalize('NFC')))].filter(
    (part) => part !== '',
  )
}

const unquoted = (part: string) =>
  part
    .trim()
    .replace(/^(["'])(.*)\1$|^[“„](.*)[”“]$|^[‘‚](.*)[’‘]$/s, '$2$3$4')
    .trim()
