import { areShares, fallsOn, readJudged, restOf, wayName, type Drawn, type Judged } from './by-lot'
import type { StepKind } from './kind'

/** Ways by lot: each of `ways` has its share, and `next` the rest. */
export interface SplitStep {
  kind: 'split'
  ways: (Drawn & { next: string | null })[]
  /** By what its ways are judged; absent: they are not. */
  judged?: Judged
  next: string | null
}

export const split: StepKind<SplitStep> = {
  name: 'Split',
  read({ ways, judged: given }) {
    const judged = readJudged(given)
    if (!judged || !Array.isArray(ways) || ways.length === 0) return null
    const read = (ways as { share?: unknown; next?: string | null }[]).map((way) => ({
      share: way?.share,
      next: way?.next ?? null,
    }))
    return areShares(read) ? { kind: 'split', ways: read as SplitStep['ways'], ...judged } : null
  },
  ways: ({ next, ways }) =>
    [{ next, share: restOf(ways) }, ...ways].map((way, n) => ({
      next: way.next,
      words: `${wayName(n)} ${way.share / 10}%`,
    })),
  drawn: ({ ways }) => ways,
  carryOut: ({ ways }, id, { lot, sharesOf }) => ({
    effects: [],
    way: fallsOn(ways, lot(id), sharesOf(id)),
  }),
}
