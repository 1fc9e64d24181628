import { tiers, type Tier } from '../standing'
import type { DispatchPlan } from './plan'

/** A part of a mailing: some of its people, fixed and queued together. */
export type PartKind = 'everybody' | 'test' | 'rest' | `tier ${Tier}`

/** The parts in which a mailing goes out, in their order. The first begins at once. */
export function partsOf({ pace, test }: DispatchPlan): PartKind[] {
  const first: PartKind[] = test ? ['test'] : []
  if (test && test.share >= 1) return first
  if (pace === 'widening')
    return [...first, ...tiers.toReversed().map((tier): PartKind => `tier ${tier}`)]
  return [...first, test ? 'rest' : 'everybody']
}

/** What came of a part, of those that have an answer. */
export interface PartCounts {
  tried: number
  bounced: number
  complained: number
  deferred: number
}

/** Above these shares nobody else is mailed until somebody has looked: bounces, complaints, deferrals of those tried. */
export const lines = { bounced: 0.02, complained: 0.001, deferred: 0.1 } as const

/** A handful says nothing: one bounce in ten people is no sign. */
const FEWEST = 50

/** Why the next tier should not follow, in words; null where all is well. */
export function lineBroken(counts: PartCounts): string | null {
  if (counts.tried < FEWEST) return null
  const words = {
    bounced: 'bounced or were refused',
    complained: 'complained',
    deferred: 'were put off by their provider',
  }
  for (const key of ['bounced', 'complained', 'deferred'] as const) {
    const share = counts[key] / counts.tried
    // A single complaint among a few hundred is above the line, but no sign yet.
    if (share > lines[key] && counts[key] > 1)
      return `${counts[key].toLocaleString('en-GB')} of ${counts.tried.toLocaleString('en-GB')} ${words[key]} (${percent(share)}; the line is ${percent(lines[key])}).`
  }
  return null
}

function percent(share: number): string {
  return `${(share * 100).toFixed(share < 0.01 ? 2 : 1)}%`
}
