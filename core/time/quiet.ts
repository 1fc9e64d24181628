import { localDay, minuteOfDay } from './zone'

/** Hours of every day, by a clock, in which nothing is sent: from one up to another, which may be over midnight. */
export interface QuietHours {
  /** 0 to 23. */
  from: number
  /** 0 to 23, and another than `from`. */
  to: number
}

/** When what is due at a time may be sent: then, or at the end of the quiet hours in which it falls. */
export function afterQuiet(at: number, hours: QuietHours, zone: string): number {
  const today = localDay(at, zone).start
  // Those of the day before may not be over yet.
  for (const day of [localDay(today - 1, zone).start, today]) {
    const { begins, ends } = quietOn(day, hours, zone)
    if (begins <= at && at < ends) return ends
  }
  return at
}

/** The quiet hours that begin on a day, as moments; kept, since many come by on the same days. */
function quietOn(day: number, hours: QuietHours, zone: string) {
  let kept = keptOf.get(hours)
  if (!kept) keptOf.set(hours, (kept = new Map()))
  const key = `${day} ${zone}`
  let found = kept.get(key)
  if (!found) {
    const last = hours.from < hours.to ? day : localDay(day, zone).end
    const [begins, ends] = [
      minuteOfDay(day, hours.from * 60, zone),
      minuteOfDay(last, hours.to * 60, zone),
    ]
    kept.set(key, (found = { begins, ends }))
  }
  return found
}
const keptOf = new WeakMap<QuietHours, Map<string, { begins: number; ends: number }>>()
