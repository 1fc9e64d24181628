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

/**
 * Several and one more. Where all had the same share, they have again; where somebody chose shares, those stay, and the
 * one more gets half of what the first had.
 */
export function withOneMore<T extends Drawn>(
  drawn: readonly T[],
  more: Omit<NoInfer<T>, 'share'>,
): T[] {
  const even = evenShare(drawn.length)
  const half = Math.floor(restOf(drawn) / 2)
  if (half > 0 && drawn.some(({ share }) => share !== even))
    return [...drawn, { ...more, share: half } as T]
  const share = evenShare(drawn.length + 1)
  return [...drawn, more].map((one) => ({ ...one, share }) as T)
}

/** The share that so many have, and the first as well, where all have the same. */
const evenShare = (many: number) => Math.floor(WHOLE / (many + 1))
