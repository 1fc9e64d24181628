import { readHappening, whatItLacks, type Happening } from '../happening'
import type { StepKind } from './kind'

/**
 * What the sequence is for. Whoever reaches it at a step before it comes here at once, and goes out by it, or on behind it;
 * who comes by without having reached it goes on by `next`.
 */
export interface GoalStep {
  kind: 'goal'
  name: string
  when: Happening
  /** Reached only within so many days of coming in. Absent: at any time while they are inside. */
  within?: number
  /** What it is worth each time, in minor units. Absent: what they ordered. */
  worth?: number
  /** Whether who reached it is out, or goes on. */
  out: boolean
  /** Where those who reached it go on; absent: where everybody does. Who is out has none. */
  ways?: { next: string | null }[]
  next: string | null
}

export const MOST_GOAL_DAYS = 365
/** A hundred million of the largest unit of most currencies. */
const MOST_WORTH = 10_000_000_000

export const goal: StepKind<GoalStep> = {
  name: 'Goal',
  read({ name, when, within, worth, out, ways }) {
    const read = readHappening(when)
    if (!read || typeof name !== 'string' || name.length > 80) return null
    if (!isLacking(within) && !isWhole(within, 1, MOST_GOAL_DAYS)) return null
    if (!isLacking(worth) && !isWhole(worth, 0, MOST_WORTH)) return null
    const own = out === false && Array.isArray(ways) && ways.length === 1
    return {
      ...{ kind: 'goal', name, when: read, out: out !== false },
      ...(isLacking(within) ? {} : { within: within as number }),
      ...(isLacking(worth) ? {} : { worth: worth as number }),
      ...(own && { ways: [{ next: (ways[0] as { next?: string | null } | null)?.next ?? null }] }),
    }
  },
  ways: ({ next, ways }) =>
    ways
      ? [
          { next, words: 'not reached' },
          { next: ways[0]!.next, words: 'reached it' },
        ]
      : [{ next, words: '' }],
  carryOut: () => ({ effects: [], way: 0 }),
  problems({ when }, around) {
    const lacks = whatItLacks(when, around)
    return lacks ? [`The goal asks for ${lacks}.`] : []
  },
}

const isLacking = (value: unknown) => value === undefined || value === null
const isWhole = (value: unknown, least: number, most: number) =>
  Number.isSafeInteger(value) && (value as number) >= least && (value as number) <= most
