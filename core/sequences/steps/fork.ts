import { readHappening, whatItLacks, type Happening } from '../happening'
import type { StepKind } from './kind'

/** Ways that are asked in order; the first that holds is taken, and `next` is everyone else's. */
export interface ForkStep {
  kind: 'fork'
  ways: { when: Happening; next: string | null }[]
  next: string | null
}

export const fork: StepKind<ForkStep> = {
  name: 'Fork',
  read({ ways }) {
    if (!Array.isArray(ways) || ways.length === 0 || ways.length > MOST_WAYS) return null
    const read = (ways as { when?: unknown; next?: string | null }[]).map((way) => ({
      when: readHappening(way?.when),
      next: way?.next ?? null,
    }))
    return read.every((way) => way.when !== null) ? { kind: 'fork', ways: read as never } : null
  },
  carryOut: ({ ways }, _id, { holds }) => ({
    effects: [],
    way: ways.findIndex(({ when }) => holds(when)) + 1,
  }),
  ways: ({ next, ways }) => [
    { next, words: 'everyone else' },
    ...ways.map((way, n) => ({
      next: way.next,
      words: ways.length > 1 ? `way ${n + 1}` : 'yes',
    })),
  ],
  problems: ({ ways }, around) =>
    ways.flatMap(({ when }) => {
      const lacks = whatItLacks(when, around)
      return lacks ? [`A fork asks for ${lacks}.`] : []
    }),
}
/** Besides everyone else's. */
const MOST_WAYS = 4
