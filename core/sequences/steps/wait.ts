import {
  DAY,
  addDays,
  dayOf,
  isDay,
  isZone,
  localDay,
  minuteOfDay,
  startOfDay,
  type Day,
} from '../../time'
import { MOST_DAYS_OFF } from '../days-off'
import { isStepId, readHappening, whatItLacks, type Happening } from '../happening'
import type { ArrivalFacts, StepKind } from './kind'

/**
 * A time, or until something; and then, where hours are named, until the next moment within them. What `until` says is past,
 * or is not known of somebody, is not waited for.
 */
export interface WaitStep {
  kind: 'wait'
  /** Milliseconds; where it waits for something to happen: at most so long. */
  ms: number
  until?: Until
  /** Where something is waited for: the way of those of whom it did not happen in time. */
  ways?: { next: string | null }[]
  /** Absent: at any hour of any day. */
  hours?: OpenHours
  /** At the hour at which each reads most; where hours are named, at the one within them that is nearest to it. */
  best?: true
  /** The field in which their time zone stands, by whose clock days and hours are meant. Absent, and for who has none: the account's. */
  clock?: string
  /** Where only a time is waited for: back to a step before it, until each has gone back so many times in their round. */
  back?: WayBack
  next: string | null
}

export interface WayBack {
  to: string
  times: number
}

/** A year of weeks. */
export const MOST_TIMES_BACK = 52
/** The way, of a wait, of those who go back. */
export const BACK = 1

/** What is waited for: something that somebody does, since they came in; or an hour of a day. */
export type Until =
  | { is: 'happens'; what: Happening }
  | { is: 'day'; day: Day; hour: number }
  /** So many days after a date of theirs; before it: less than 0. */
  | { is: 'date'; of: string; days: number; hour: number }

/** Days of the week (0 is Sunday), and from which minute of the day up to which. */
export interface OpenHours {
  days: number[]
  from: number
  to: number
  /** Days that are none of them, in their order. */
  off?: Day[]
}

export const officeHours: OpenHours = { days: [1, 2, 3, 4, 5], from: 8 * 60, to: 18 * 60 }

/** Ten years; longer than anybody waits for a letter. */
const LONGEST_WAIT = 3_660 * 24 * 60 * 60_000
const MINUTES = 24 * 60

export const wait: StepKind<WaitStep> = {
  name: 'Wait',
  read({ ms, hours, until, ways, clock, best, back }) {
    const open = hours == null ? null : readHours(hours)
    if (hours != null && open === null) return null
    const what = until == null ? null : readUntil(until)
    if (until != null && what === null) return null
    if (clock != null && (typeof clock !== 'string' || clock.length > 100)) return null
    if (!Number.isSafeInteger(ms) || (ms as number) <= 0 || (ms as number) > LONGEST_WAIT)
      return null
    const late = what?.is === 'happens' ? lateWay(ways) : {}
    const again = back == null || what ? {} : readBack(back)
    return (
      late &&
      again && {
        kind: 'wait',
        ms: ms as number,
        ...(what && { until: what }),
        ...(open && { hours: open }),
        ...(best === true && { best }),
        ...(clock ? { clock: clock as string } : {}),
        ...late,
        ...again,
      }
    )
  },
  ways: ({ next, ways }) =>
    ways
      ? [
          { next, words: 'it happened' },
          { next: ways[0]!.next, words: 'not in time' },
        ]
      : [{ next, words: '' }],
  due(step, now, facts) {
    // What may have happened already is looked at when they come.
    if (step.until?.is === 'happens') return now
    const zone = zoneOf(step, facts)
    return within(step, Math.max(now, endOf(step, now, zone, facts)), zone, facts)
  },
  carryOut(step, id, facts, now, arrived) {
    const { back } = step
    if (back && (facts.wentBack?.(id) ?? 0) < back.times)
      return { effects: [], way: BACK, back: back.to }
    if (step.until?.is !== 'happens') return { effects: [], way: 0 }
    const zone = zoneOf(step, facts)
    if (facts.holds(step.until.what)) {
      const open = within(step, now, zone, facts)
      return open > now ? { stay: open } : { effects: [], way: 0 }
    }
    const end = within(step, arrived + step.ms, zone, facts)
    return now >= end ? { effects: [], way: 1 } : { stay: end }
  },
  problems(step, around) {
    const { until, back, ms } = step
    if (back && !around.leadsTo(back.to, step))
      return ['A wait goes back to a step that does not stand before it.']
    if (back && ms < DAY) return ['A wait goes back after less than a day: make it longer.']
    if (until?.is === 'date' && until.of === '')
      return ['A wait goes on by a date of theirs, and it is not said which.']
    const lacks = until?.is === 'happens' ? whatItLacks(until.what, around) : null
    return lacks ? [`A wait asks for ${lacks}.`] : []
  },
}

/** Whether somebody who stands at a step is to be looked at again when they do something. */
export const isWaitingFor = (step: { kind: string; until?: Until } | undefined): boolean =>
  step?.kind === 'wait' && step.until?.is === 'happens'

/** By whose clock somebody waits. */
function zoneOf({ clock }: WaitStep, { zone, fieldOf }: ArrivalFacts): string {
  const theirs = clock === undefined ? null : fieldOf(clock)
  return typeof theirs === 'string' && isZone(theirs) ? theirs : zone
}

function within({ hours, best }: WaitStep, at: number, zone: string, facts: ArrivalFacts): number {
  const open = best ? aroundHour(hours ?? anyHour, facts.bestHour(zone)) : hours
  return open ? openFrom(at, open, zone) : at
}

/** The hour within the hours that is nearest to an hour of the day; made once, as {@link openOn} keeps what it reckons. */
function aroundHour(hours: OpenHours, hour: number): OpenHours {
  let made = around.get(hours)
  if (!made) around.set(hours, (made = []))
  const last = Math.max(hours.from, hours.to - 60)
  const from = Math.min(Math.max(hour * 60, hours.from), last)
  return (made[hour] ??= { ...hours, from, to: Math.min(hours.to, from + 60) })
}
const around = new WeakMap<OpenHours, OpenHours[]>()
const anyHour: OpenHours = { days: [0, 1, 2, 3, 4, 5, 6], from: 0, to: MINUTES }

/** When the time is over, or the day has come; its first moment, where the hour is each one's own. */
function endOf(
  { ms, until, best }: WaitStep,
  now: number,
  zone: string,
  { fieldOf }: ArrivalFacts,
): number {
  const minuteOf = (hour: number) => (best ? 0 : hour * 60)
  if (until?.is === 'day')
    return minuteOfDay(startOfDay(until.day, zone), minuteOf(until.hour), zone)
  if (until?.is !== 'date') return now + ms
  const date = fieldOf(until.of)
  if (!isDay(date)) return now
  const day = addDays(startOfDay(date, zone), until.days, zone)
  return minuteOfDay(day, minuteOf(until.hour), zone)
}

function readUntil(json: unknown): Until | null {
  if (typeof json !== 'object' || json === null) return null
  const { is, what, day, of, days, hour } = json as Record<string, unknown>
  const isWhole = (value: unknown, least: number, most: number): value is number =>
    Number.isSafeInteger(value) && (value as number) >= least && (value as number) <= most
  switch (is) {
    case 'happens': {
      const read = readHappening(what)
      // Whether somebody fits a rule changes without anything happening to them.
      return read && read.is !== 'fits' ? { is, what: read } : null
    }
    case 'day':
      return isDay(day) && isWhole(hour, 0, 23) ? { is, day, hour } : null
    case 'date':
      return typeof of === 'string' &&
        of.length <= 100 &&
        isWhole(days, -3_660, 3_660) &&
        isWhole(hour, 0, 23)
        ? { is, of, days, hour }
        : null
    default:
      return null
  }
}

function readBack(json: unknown): { back: WayBack } | null {
  if (typeof json !== 'object' || json === null) return null
  const { to, times } = json as Record<string, unknown>
  const isMany =
    Number.isSafeInteger(times) && (times as number) > 0 && (times as number) <= MOST_TIMES_BACK
  return isStepId(to) && isMany ? { back: { to, times: times as number } } : null
}

function lateWay(ways: unknown): { ways: { next: string | null }[] } | null {
  if (!Array.isArray(ways) || ways.length !== 1) return null
  return { ways: [{ next: (ways[0] as { next?: string | null } | null)?.next ?? null }] }
}

function readHours(json: unknown): OpenHours | null {
  if (typeof json !== 'object' || json === null) return null
  const { days, from, to, off } = json as Record<string, unknown>
  if (off != null && !(Array.isArray(off) && off.length <= MOST_DAYS_OFF && off.every(isDay)))
    return null
  const isMinute = (value: unknown): value is number =>
    Number.isSafeInteger(value) && (value as number) >= 0 && (value as number) <= MINUTES
  const isDayOfWeek = (value: unknown) => [0, 1, 2, 3, 4, 5, 6].includes(value as number)
  return Array.isArray(days) &&
    days.length > 0 &&
    days.every(isDayOfWeek) &&
    isMinute(from) &&
    isMinute(to) &&
    from < to
    ? {
        ...{ days: [...new Set(days as number[])].sort((a, b) => a - b), from, to },
        ...(off?.length ? { off: [...new Set(off as Day[])].sort() } : {}),
      }
    : null
}

/**
 * The first moment from a time on that is within the hours. Hours are those of the zone's clock: where one is missing, the
 * next that there is.
 */
export function openFrom(at: number, hours: OpenHours, zone: string): number {
  let day = localDay(at, zone)
  for (let ahead = 0; ahead < 8 * (1 + (hours.off?.length ?? 0)); ahead++) {
    if (hours.days.includes(day.weekday)) {
      const { opens, closes } = openOn(day.start, hours, zone)
      if (at < closes) return Math.max(at, opens)
    }
    day = localDay(day.end, zone)
  }
  return at
}

/** The hours of one day as moments, of a day off none; kept, since many come by on the same days. */
function openOn(start: number, hours: OpenHours, zone: string) {
  let kept = opened.get(hours)
  if (!kept) opened.set(hours, (kept = new Map()))
  const key = `${start} ${zone}`
  let found = kept.get(key)
  if (!found) {
    const [opens, closes] = [hours.from, hours.to].map((at) => minuteOfDay(start, at, zone))
    found = hours.off?.includes(dayOf(start, zone))
      ? { opens: -Infinity, closes: -Infinity }
      : { opens: opens!, closes: closes! }
    kept.set(key, found)
  }
  return found
}
const opened = new WeakMap<OpenHours, Map<string, { opens: number; closes: number }>>()
