import { DateTime } from 'luxon'
import { showFieldValue, type FieldKind, type FieldValue } from '~~/core/people'
import { dateText, isDay } from '~~/core/time'

/** "12,408". */
export function count(n: number): string {
  return n.toLocaleString('en-GB')
}

/** "41.2%"; small shares get two figures after the point. */
export function percent(share: number): string {
  if (share === 0) return '0%'
  return `${(share * 100).toFixed(share < 0.01 ? 2 : 1)}%`
}

/** "1st", "10th". */
export function ordinal(n: number): string {
  const end = { one: 'st', two: 'nd', few: 'rd', other: 'th', zero: 'th', many: 'th' }
  return `${n}${end[new Intl.PluralRules('en-GB', { type: 'ordinal' }).select(n)]}`
}

/** "1 link", "1,224 links". */
export function several(n: number, one: string, many: string): string {
  return `${count(n)} ${n === 1 ? one : many}`
}
/** How long something takes, in the words of somebody who waits for it: "about 5 hours". */
export function lasting(ms: number): string {
  const minutes = ms / 60_000
  if (minutes < 1) return 'less than a minute'
  if (minutes < 120) return `about ${several(Math.round(minutes), 'minute', 'minutes')}`
  if (minutes < 48 * 60) return `about ${several(Math.round(minutes / 60), 'hour', 'hours')}`
  return `about ${several(Math.round(minutes / (24 * 60)), 'day', 'days')}`
}
export const rows = (n: number) => several(n, 'row', 'rows')
export const people = (n: number) => several(n, 'person', 'people')

/** A mailing's state as it is called: where it stands still, by what. */
export function mailingState({
  state,
  held_by,
}: {
  state: string
  held_by?: string | null
}): string {
  if (state !== 'held') return state
  return { hand: 'paused', line: 'stopped', fault: 'stopped' }[held_by ?? ''] ?? 'blocked'
}

/** A field's value as people read it. */
export function valueWords(value: FieldValue | null | undefined, kind: FieldKind): string {
  return kind === 'date' && isDay(value) ? dateText(value) : showFieldValue(value)
}

/** What a kind of field holds. */
export const kindWords: Record<FieldKind, string> = {
  text: 'text',
  number: 'number',
  date: 'date',
  choice: 'choice',
  choices: 'several choices',
  yesno: 'yes or no',
  link: 'link',
}

/** Times in the account's zone. */
export function useTimes() {
  const session = useSession()
  const at = (ms: number) => DateTime.fromMillis(ms, { zone: session.zone, locale: 'en-GB' })
  return {
    /** "Mon 23 Nov 09:40". */
    dayAndTime: (ms: number) => at(ms).toFormat('ccc d LLL HH:mm'),
    /** "23 Nov 2026". */
    date: (ms: number) => at(ms).toFormat('d LLL yyyy'),
    /** "09:40". */
    time: (ms: number) => at(ms).toFormat('HH:mm'),
    at,
  }
}

/** The calendar day it is now in the account's zone, "2026-11-23". */
export function useToday() {
  const session = useSession()
  const live = useLive()
  return { today: () => DateTime.fromMillis(live.now, { zone: session.zone }).toISODate()! }
}

/** How many of its minor units one unit of a currency has: 100 pence, 1 yen. */
export function unitOf(currency: string): number {
  const { maximumFractionDigits } = new Intl.NumberFormat('en-GB', {
    ...{ style: 'currency', currency },
  }).resolvedOptions()
  return 10 ** (maximumFractionDigits ?? 2)
}

/** Money in minor units as people write it: "£412", "£38.50". */
export function money(minor: number, currency: string): string {
  const format = new Intl.NumberFormat('en-GB', { style: 'currency', currency })
  const digits = format.resolvedOptions().maximumFractionDigits ?? 2
  const shown = format.format(minor / 10 ** digits)
  return shown.replace(/[.,]00$/, '')
}
