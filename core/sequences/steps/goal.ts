import { readHappening, whatItLacks, type Happening } from '../happening'
import type { StepKind } from './kind'

/**
 * What the sequence is for. Whoever reaches it at a step before it comes here at once, and goes out by it or on behind it;
 * who comes by without having reached it goes on by `next`.
 */
export interface GoalStep {
  kind: 'goal'
  name: string
  when: Happening
  /** Whether who reached it is out, or goes on behind it. */
  out: boolean
  next: string | null
}

export const goal: StepKind<GoalStep> = {
  name: 'Goal',
  read({ name, when, out }) {
    const read = readHappening(when)
    return read && typeof name === 'string' && name.length <= 80
      ? { kind: 'goal', name, when: read, out: out !== false }
      : null
  },
  carryOut: () => ({ effects: [], way: 0 }),
  problems({ when }, around) {
    const lacks = whatItLacks(when, around)
    return lacks ? [`The goal asks for ${lacks}.`] : []
  },
}
