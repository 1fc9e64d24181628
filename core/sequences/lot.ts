import { slotOf } from '../experiments'

/**
 * Where somebody falls by lot at a step, from 0 up to but not including 1: a hash of sequence, step, person and
 * round, so that it is always the same, and at each step drawn anew.
 */
export function lotOf(sequenceId: number, step: string, personId: number, round: number): number {
  const of = round === 0 ? `${sequenceId} ${step}` : `${sequenceId} ${step} ${round}`
  return slotOf('way', numberOf(of), personId)
}

/** Whether somebody who comes in is held out: in each of their rounds, or in none. */
export const isHeldOut = (sequenceId: number, heldOut: number, personId: number): boolean =>
  lotOf(sequenceId, 'held out', personId, 0) * 1_000 < heldOut

/** A text as 32 bits (FNV-1a). */
function numberOf(text: string): number {
  let hash = 0x811c9dc5
  for (const letter of text) hash = Math.imul(hash ^ letter.codePointAt(0)!, 0x01000193)
  return hash >>> 0
}
