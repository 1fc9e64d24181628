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
