import { addDays, DAY, startOfDay, type Day } from '../../core/time'

/** The days of a zone from one up to and with another: where each begins and the last ends, and in which a time is. */
export function daysBetween(from: Day, to: Day, zone: string) {
  const bounds = [startOfDay(from, zone)]
  const end = addDays(startOfDay(to, zone), 1, zone)
  while (bounds.at(-1)! < end) bounds.push(addDays(bounds.at(-1)!, 1, zone))
  const many = bounds.length - 1
  return {
    bounds,
    many,
    begin: bounds[0]!,
    end: bounds[many]!,
    /** Counted from the first; null: in none of them. Days last a day, give or take a change of the clocks. */
    dayAt(at: number): number | null {
      if (at < bounds[0]! || at >= bounds[many]!) return null
      let i = Math.min(many - 1, Math.floor((at - bounds[0]!) / DAY))
      while (at >= bounds[i + 1]!) i++
      while (at < bounds[i]!) i--
      return i
    },
  }
}
export type Days = ReturnType<typeof daysBetween>
