import type { StepKind } from './kind'

/** Ways by lot: each of `ways` has its share in tenths of a percent, and `next` the rest. */
export interface SplitStep {
  kind: 'split'
  ways: { share: number; next: string | null }[]
  /** By what its ways are judged; absent: they are not. */
  judged?: Judged
  next: string | null
}

/** What tells which way does better, of those who came by so many days ago or longer; and what comes of that. */
export interface Judged {
  by: 'goal' | 'opened' | 'clicked' | 'money'
  days: number
  /** By hand; by itself, as soon as one is clearly the best; or shares that follow the evidence. */
  how: 'hand' | 'self' | 'adaptive'
}

export const judgedBy = {
  goal: 'reached the goal',
  opened: 'opened a mail',
  clicked: 'clicked in a mail',
  money: 'money by orders',
} as const satisfies Record<Judged['by'], string>

export const judgedHow = {
  hand: 'I decide',
  self: 'the better way takes everybody, once it is clear',
  adaptive: 'shares follow the evidence',
} as const satisfies Record<Judged['how'], string>

/** Tenths of a percent. */
export const WHOLE = 1_000
const MOST_WAYS = 4

export const split: StepKind<SplitStep> = {
  name: 'Split',
  read({ ways, judged: given }) {
    const judged = given == null ? null : readJudged(given)
    if (given != null && judged === null) return null
    if (!Array.isArray(ways) || ways.length === 0 || ways.length > MOST_WAYS) return null
    const read = (ways as { share?: unknown; next?: string | null }[]).map((way) => ({
      share: way?.share as number,
      next: way?.next ?? null,
    }))
    const isShare = (share: unknown) => Number.isSafeInteger(share) && (share as number) > 0
    return read.every(({ share }) => isShare(share)) && restOf(read) > 0
      ? { kind: 'split', ways: read, ...(judged && { judged }) }
      : null
  },
  ways: ({ next, ways }) =>
    [{ next, share: restOf(ways) }, ...ways].map((way, n) => ({
      next: way.next,
      words: `${wayName(n)} ${way.share / 10}%`,
    })),
  carryOut({ ways }, id, { lot, sharesOf }) {
    const come = sharesOf(id)
    let place = lot(id) * WHOLE
    const way = ways.findIndex(
      ({ share }, n) => (place -= come?.length === ways.length + 1 ? come[n + 1]! : share) < 0,
    )
    return { effects: [], way: way + 1 }
  },
}

function readJudged(json: unknown): Judged | null {
  if (typeof json !== 'object' || json === null) return null
  const { by, days, how } = json as Record<string, unknown>
  return typeof by === 'string' &&
    Object.hasOwn(judgedBy, by) &&
    typeof how === 'string' &&
    Object.hasOwn(judgedHow, how) &&
    Number.isSafeInteger(days) &&
    (days as number) >= 1 &&
    (days as number) <= 90
    ? ({ by, days, how } as Judged)
    : null
}

/** What a way is called: A is the main one. */
export const wayName = (way: number): string => 'ABCDE'[way]!

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

/** Whether a step is a split whose ways are judged. */
export const isJudged = (step: {
  kind: string
}): step is SplitStep & Required<Pick<SplitStep, 'judged'>> =>
  step.kind === 'split' && (step as SplitStep).judged !== undefined
