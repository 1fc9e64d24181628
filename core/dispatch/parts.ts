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
