import { hourOf } from '../time'

/** So many opens of one's own weigh as much as what everybody does. */
const EVERYBODY = 5

/**
 * The hour of the day at which somebody reads most: their own opens by hour, smoothed towards everybody's, so that one
 * open at night makes nobody a night reader. Ties go to the earlier hour.
 */
export function bestHour(own: readonly number[], everybody: readonly number[]): number {
  const all = everybody.reduce((sum, n) => sum + n, 0)
  const score = (hour: number) =>
    (own[hour] ?? 0) + (all ? (EVERYBODY * (everybody[hour] ?? 0)) / all : 0)
  let best = 0
  for (let hour = 1; hour < 24; hour++) if (score(hour) > score(best)) best = hour
  return best
}

/** So many opens at about a time. */
export interface Opens {
  /** UTC milliseconds. */
  at: number
  opens: number
}

/**
 * The hour of the day, by a zone's clock, at which somebody reads most: see {@link bestHour}.
 * @param own When they opened mail, UTC milliseconds.
 * @param everybody Always the same list for the same opens: its hours are reckoned once for each zone.
 */
export function readingHour(
  own: readonly number[],
  everybody: readonly Opens[],
  zone: string,
): number {
  const mine = new Array<number>(24).fill(0)
  for (const at of own) mine[hourOf(at, zone)]!++
  return bestHour(mine, hoursOf(everybody, zone))
}

function hoursOf(everybody: readonly Opens[], zone: string): readonly number[] {
  let known = hoursByZone.get(everybody)
  if (!known) hoursByZone.set(everybody, (known = new Map()))
  let hours = known.get(zone)
  if (!hours) {
    known.set(zone, (hours = new Array<number>(24).fill(0)))
    for (const { at, opens } of everybody) hours[hourOf(at, zone)]! += opens
  }
  return hours
}
const hoursByZone = new WeakMap<readonly Opens[], Map<string, number[]>>()
