import { addDays, dayOf, dayStart, minuteOfDay } from '../../time'
import type { StepKind } from './kind'

/** A time, and then, where hours are named, until the next moment within them. */
export interface WaitStep {
  kind: 'wait'
  /** Milliseconds. */
  ms: number
  /** Absent: at any hour of any day. */
  hours?: OpenHours
  next: string | null
}

/** Days of the week (0 is Sunday), and from which minute of the day up to which, on the account's clock. */
export interface OpenHours {
  days: number[]
  from: number
  to: number
}

export const officeHours: OpenHours = { days: [1, 2, 3, 4, 5], from: 8 * 60, to: 18 * 60 }

/** Ten years; longer than anybody waits for a letter. */
const LONGEST_WAIT = 3_660 * 24 * 60 * 60_000
const MINUTES = 24 * 60

export const wait: StepKind<WaitStep> = {
  name: 'Wait',
  read({ ms, hours }) {
    const open = hours == null ? null : readHours(hours)
    if (hours != null && open === null) return null
    return Number.isSafeInteger(ms) && (ms as number) > 0 && (ms as number) <= LONGEST_WAIT
      ? { kind: 'wait', ms: ms as number, ...(open && { hours: open }) }
      : null
  },
  carryOut: () => ({ effects: [], way: 0 }),
  due: ({ ms, hours }, now, zone) => (hours ? openFrom(now + ms, hours, zone) : now + ms),
}

function readHours(json: unknown): OpenHours | null {
  if (typeof json !== 'object' || json === null) return null
  const { days, from, to } = json as Record<string, unknown>
  const isMinute = (value: unknown): value is number =>
    Number.isSafeInteger(value) && (value as number) >= 0 && (value as number) <= MINUTES
  const isDayOfWeek = (value: unknown) => [0, 1, 2, 3, 4, 5, 6].includes(value as number)
  return Array.isArray(days) &&
    days.length > 0 &&
    days.every(isDayOfWeek) &&
    isMinute(from) &&
    isMinute(to) &&
    from < to
    ? { days: [...new Set(days as number[])].sort((a, b) => a - b), from, to }
    : null
}

/**
 * The first moment from a time on that is within the hours. Hours are those of the zone's clock: where one is missing, the
 * next that there is.
 */
export function openFrom(at: number, { days, from, to }: OpenHours, zone: string): number {
  for (let ahead = 0; ahead < 8; ahead++) {
    const start = addDays(dayStart(at, zone), ahead, zone)
    const weekday = new Date(`${dayOf(start, zone)}T00:00Z`).getUTCDay()
    if (!days.includes(weekday)) continue
    const opens = minuteOfDay(start, from, zone)
    const closes = minuteOfDay(start, to, zone)
    if (at < closes) return Math.max(at, opens)
  }
  return at
}
