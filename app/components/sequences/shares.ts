import { restOf, WHOLE, type Drawn } from '~~/core/sequences'

/** The most that one of several may have, in percent: something is left for the first. */
export const mostFor = (drawn: readonly Drawn[], n: number): number =>
  (restOf(drawn) + drawn[n]!.share) / 10 - 0.1

/** Several with the share of one as it was typed, in percent; null: it is no number. */
export function withShare<T extends Drawn>(
  drawn: readonly T[],
  n: number,
  percent: number,
): T[] | null {
  if (!Number.isFinite(percent)) return null
  const share = Math.round(Math.min(mostFor(drawn, n), Math.max(0.1, percent)) * 10)
  return drawn.map((one, i) => (i === n ? { ...one, share } : one))
}

/** Several with the same share each, which the first has as well. */
export function evenly<T extends Drawn>(drawn: readonly T[]): T[] {
  const share = Math.floor(WHOLE / (drawn.length + 1))
  return drawn.map((one) => ({ ...one, share }))
}
