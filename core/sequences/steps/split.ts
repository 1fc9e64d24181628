import type { StepKind } from './kind'

/** Ways by lot: each of `ways` has its share in tenths of a percent, and `next` the rest. */
export interface SplitStep {
  kind: 'split'
  ways: { share: number; next: string | null }[]
  next: string | null
}

/** Tenths of a percent. */
export const WHOLE = 1_000
const MOST_WAYS = 4

export const split: StepKind<SplitStep> = {
  name: 'Split',
  read({ ways }) {
    if (!Array.isArray(ways) || ways.length === 0 || ways.length > MOST_WAYS) return null
    const read = (ways as { share?: unknown; next?: string | null }[]).map((way) => ({
      share: way?.share as number,
      next: way?.next ?? null,
    }))
    const isShare = (share: unknown) => Number.isSafeInteger(share) && (share as number) > 0
    return read.every(({ share }) => isShare(share)) && restOf(read) > 0
      ? { kind: 'split', ways: read }
      : null
  },
  ways: ({ next, ways }) =>
    [{ next, share: restOf(ways) }, ...ways].map((way, n) => ({
      next: way.next,
      words: `${'ABCDE'[n]} ${way.share / 10}%`,
    })),
  carryOut({ ways }, id, { lot }) {
    let place = lot(id) * WHOLE
    const way = ways.findIndex(({ share }) => (place -= share) < 0)
    return { effects: [], way: way + 1 }
  },
}

/** The share of the main way. */
export const restOf = (ways: readonly { share: number }[]): number =>
  WHOLE - ways.reduce((sum, { share }) => sum + share, 0)

/** A place in the lot of somebody who falls on a way. */
export function lotOfWay({ ways }: SplitStep, way: number): number {
  const shares = ways.map(({ share }) => share)
  const upTo = way === 0 ? shares.length : way - 1
  const before = shares.slice(0, upTo).reduce((sum, share) => sum + share, 0)
  return (before + (way === 0 ? restOf(ways) : shares[way - 1]!) / 2) / WHOLE
}
