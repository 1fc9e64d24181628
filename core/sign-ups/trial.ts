import { compareVariants, liftOf, slotOf, type Compared, type Lift } from '../experiments'
import { wilson, type Interval } from '../results/wilson'

/** At most so many versions are tested against each other. */
export const MOST_TESTED = 4

/** Versions of a form that visitors see by lot. */
export interface FormTest {
  id: number
  versions: readonly number[]
}

/**
 * Which version somebody sees: by lot, and the same all day. `visitor`: a hash of who they are, by a key that is thrown away
 * each day; so no cookie is needed, and none outlives the purpose.
 */
export function testedVersion({ id, versions }: FormTest, visitor: string): number {
  const number = [...visitor].reduce((n, one) => (n * 61 + one.charCodeAt(0)) % 2 ** 45, 0)
  return versions[Math.floor(slotOf('variant', id, number) * versions.length)]!
}

/** What one version of a test came to. */
export interface TestedVersion {
  version: number
  seen: number
  confirmed: number
  rate: Interval
  /** The probability that it is the best of all. */
  best: number
}

export interface JudgedTest {
  versions: TestedVersion[]
  /** The place of the one with the highest rate; and whether it is the best with a probability of 95 % at least. */
  leader: number
  clear: Compared['clear']
  /** How much more the leader brings than the best of the others, with its interval. */
  ahead: Lift
}

/** How the versions of a test compare: by those who confirmed, of those who saw it. */
export function judgeTest(
  counts: readonly { version: number; seen: number; confirmed: number }[],
): JudgedTest {
  const rates = counts.map(({ seen, confirmed }) => ({ hits: Math.min(confirmed, seen), of: seen }))
  const { variants, leader, clear } = compareVariants(
    rates.map((one) => ({ kind: 'rate', ...one })),
  )
  const others = rates.filter((_, i) => i !== leader)
  const next = others.reduce((best, one) =>
    one.hits / (one.of || 1) > best.hits / (best.of || 1) ? one : best,
  )
  return {
    versions: counts.map((one, i) => ({
      ...one,
      rate: wilson(rates[i]!.hits, rates[i]!.of),
      best: variants[i]!.best,
    })),
    ...{ leader, clear, ahead: liftOf(rates[leader]!, next) },
  }
}
