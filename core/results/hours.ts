import { HOUR } from '../time'

/** First human opens and clicks of one hour, counted from the mailing's start. */
export interface HourCount {
  hour: number
  opens: number
  clicks: number
}

/**
 * In which hour something was done with a mail: of a mailing since it began; of a sequence's mail, which begins anew with
 * everybody, since it was accepted for them.
 */
export function hourOf(at: number, mail: { began: number; ownBegan: number | null }): number {
  return Math.max(0, Math.floor((at - (mail.ownBegan ?? mail.began)) / HOUR))
}

/** The hours 0..`length`-1, with zeros where nothing came. */
export function fillHours(counts: readonly HourCount[], length: number): HourCount[] {
  const byHour = new Map(counts.map((count) => [count.hour, count]))
  return Array.from({ length }, (_, hour) => byHour.get(hour) ?? { hour, opens: 0, clicks: 0 })
}

/**
 * When half of all opens had come, in ms after the start: exact to the hour, spread evenly within
 * it. Null while there is none.
 */
export function halfTime(counts: readonly HourCount[]): number | null {
  const total = counts.reduce((sum, { opens }) => sum + opens, 0)
  if (total === 0) return null
  let before = 0
  for (const { hour, opens } of [...counts].sort((a, b) => a.hour - b.hour)) {
    if (before + opens >= total / 2) return (hour + (total / 2 - before) / opens) * HOUR
    before += opens
  }
  return null
}
