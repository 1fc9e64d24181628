import type { Draw } from './rehearse'

/** A figure of a rehearsal: the middle of its draws, and between what nine in ten of them lie. */
export interface Band {
  middle: number
  /** The 5th and the 95th percentile. */
  low: number
  high: number
}

/** What a rehearsal says: each figure of a {@link Draw}, as a band. */
export type Rehearsal = {
  [K in keyof Draw]: Draw[K] extends number | null
    ? Band
    : Draw[K] extends number[]
      ? Band[]
      : Draw[K] extends Record<string, number>
        ? Record<string, Band>
        : Record<string, Band[]>
} & { draws: number }

/** So many draws make a rehearsal. */
export const DRAWS = 40

/** Draws put together. A step that nobody came to in a draw counts as 0 there. */
export function together(draws: readonly Draw[]): Rehearsal {
  const of = (figure: (draw: Draw) => number | null) => bandOf(draws.map(figure))
  const steps = (figure: 'standing' | 'opened' | 'clicked') =>
    byStep(
      draws,
      (draw) => draw[figure],
      (step) => of((draw) => draw[figure][step] ?? 0),
    )
  return {
    ...{
      draws: draws.length,
      cameIn: of((draw) => draw.cameIn),
      inside: of((draw) => draw.inside),
    },
    ...{ finished: of((draw) => draw.finished), left: of((draw) => draw.left) },
    ...{ goal: of((draw) => draw.goal), goalDays: of((draw) => draw.goalDays) },
    ...{ mails: of((draw) => draw.mails), close: of((draw) => draw.close) },
    weeks: (draws[0]?.weeks ?? []).map((_, week) => of((draw) => draw.weeks[week]!)),
    traffic: byStep(
      draws,
      (draw) => draw.traffic,
      (step) => {
        const ways = Math.max(...draws.map((draw) => draw.traffic[step]?.length ?? 0))
        return Array.from({ length: ways }, (_, way) =>
          of((draw) => draw.traffic[step]?.[way] ?? 0),
        )
      },
    ),
    ...{ standing: steps('standing'), opened: steps('opened'), clicked: steps('clicked') },
  }
}

function byStep<T>(
  draws: readonly Draw[],
  of: (draw: Draw) => Record<string, unknown>,
  figure: (step: string) => T,
): Record<string, T> {
  const steps = new Set(draws.flatMap((draw) => Object.keys(of(draw))))
  return Object.fromEntries([...steps].map((step) => [step, figure(step)]))
}

/** Percentiles by the nearest rank; draws that have no such figure are left out. */
function bandOf(values: readonly (number | null)[]): Band {
  const sorted = values.filter((value) => value !== null).sort((a, b) => a - b)
  const at = (share: number) =>
    sorted[Math.min(sorted.length - 1, Math.max(0, Math.ceil(share * sorted.length) - 1))] ?? 0
  return { middle: at(0.5), low: at(0.05), high: at(0.95) }
}
