/** Ways out of a split, and versions of a mail: who gets which is drawn by lot, and may be judged by what comes of it. */

/** One of several that are drawn by lot, besides the main one, which has the rest. */
export interface Drawn {
  /** In tenths of a percent. */
  share: number
}

/** What tells which does better, of those who came by so many days ago or longer; and what comes of that. */
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
  self: 'the better one takes everybody, once it is clear',
  adaptive: 'shares follow the evidence',
} as const satisfies Record<Judged['how'], string>

/** Tenths of a percent. */
export const WHOLE = 1_000
/** Besides the main one. */
export const MOST_DRAWN = 4

/** What one of them is called: A is the main one. */
export const wayName = (way: number): string => 'ABCDE'[way]!

/** The share of the main one. */
export const restOf = (drawn: readonly Drawn[]): number =>
  WHOLE - drawn.reduce((sum, { share }) => sum + share, 0)

/** Whether shares are whole tenths of a percent, and leave something for the main one. */
export const areShares = (drawn: readonly { share?: unknown }[]): drawn is Drawn[] =>
  drawn.length <= MOST_DRAWN &&
  drawn.every(({ share }) => Number.isSafeInteger(share) && (share as number) > 0) &&
  restOf(drawn as Drawn[]) > 0

/**
 * On which somebody falls, 0 for the main one.
 * @param lot Where they fall, from 0 up to but not including 1.
 * @param come The shares that it has come to, of all in their order; null: as they are.
 */
export function fallsOn(
  drawn: readonly Drawn[],
  lot: number,
  come: readonly number[] | null,
): number {
  let place = lot * WHOLE
  const shares = come?.length === drawn.length + 1 ? come.slice(1) : drawn.map((one) => one.share)
  return shares.findIndex((share) => (place -= share) < 0) + 1
}

/** A place in the lot of somebody who falls on one of them. */
export function lotFor(drawn: readonly Drawn[], which: number): number {
  const shares = drawn.map(({ share }) => share)
  const before = shares.slice(0, which === 0 ? shares.length : which - 1)
  const start = before.reduce((sum, share) => sum + share, 0)
  return (start + (which === 0 ? restOf(drawn) : shares[which - 1]!) / 2) / WHOLE
}

/** Reads how something is judged; absent: not at all; null: it can't be read. */
export function readJudged(json: unknown): { judged?: Judged } | null {
  if (json == null) return {}
  if (typeof json !== 'object') return null
  const { by, days, how } = json as Record<string, unknown>
  return typeof by === 'string' &&
    Object.hasOwn(judgedBy, by) &&
    typeof how === 'string' &&
    Object.hasOwn(judgedHow, how) &&
    Number.isSafeInteger(days) &&
    (days as number) >= 1 &&
    (days as number) <= 90
    ? { judged: { by, days, how } as Judged }
    : null
}
