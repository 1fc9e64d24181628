import { betaBelow, betaDensity, normalBelow, normalDensity } from '../distributions'

/** What a variant came to: hits of so many people; or, for money, the sum over people and the sum of its squares. */
export type Outcome =
  | { kind: 'rate'; hits: number; of: number }
  | { kind: 'mean'; sum: number; squares: number; of: number }

export interface VariantResult {
  /** The rate, or the mean for each person. */
  value: number
  /** The probability that it is the best of all. */
  best: number
  /** How much less than the best of all it is expected to bring. */
  loss: number
}

export interface Compared {
  variants: VariantResult[]
  /** The place of the one with the highest value. */
  leader: number
  /** Whether the leader is the best with a probability of at least {@link CLEAR}. */
  clear: boolean
}

export const CLEAR = 0.95

/**
 * How variants compare. Rates are taken as Beta-binomial with a uniform prior; means as normal around what was found,
 * which holds for the hundreds of people that a test has.
 */
export function compareVariants(outcomes: readonly Outcome[]): Compared {
  const beliefs = outcomes.map(beliefOf)
  const low = Math.min(...beliefs.map(({ range }) => range[0]))
  const high = Math.max(...beliefs.map(({ range }) => range[1]))
  // Where one begins, peaks and ends, another's curve may have a step.
  const cuts = beliefs.flatMap(({ range, mean }) => [...range, mean])
  const best = beliefs.map((mine) =>
    integral(...mine.range, cuts, (x) =>
      beliefs.reduce(
        (all, other) => (other === mine ? all : all * other.below(x)),
        mine.density(x),
      ),
    ),
  )
  const whole = best.reduce((sum, one) => sum + one, 0)
  // E max = low + ∫ P(max > x): the chance that not all lie below.
  const most =
    low + integral(low, high, cuts, (x) => 1 - beliefs.reduce((all, one) => all * one.below(x), 1))
  const variants = beliefs.map(({ value, mean }, i): VariantResult => ({
    value,
    best: whole > 0 ? best[i]! / whole : 1 / beliefs.length,
    loss: Math.max(0, most - mean),
  }))
  const leader = variants.reduce(
    (first, { value, best: chance }, i) =>
      value > variants[first]!.value ||
      (value === variants[first]!.value && chance > variants[first]!.best)
        ? i
        : first,
    0,
  )
  return { variants, leader, clear: variants[leader]!.best >= CLEAR }
}

/** How likely each value of each variant is, on one scale: for drawing. Values from the least to the most likely of all. */
export function curvesOf(
  outcomes: readonly Outcome[],
  points = 80,
): { x: number[]; y: number[][] } {
  const beliefs = outcomes.map(beliefOf)
  const low = Math.min(
    ...beliefs.map(({ mean, deviation, range }) => Math.max(range[0], mean - SHOWN * deviation)),
  )
  const high = Math.max(
    ...beliefs.map(({ mean, deviation, range }) => Math.min(range[1], mean + SHOWN * deviation)),
  )
  const x = Array.from({ length: points }, (_, i) => low + ((high - low) * i) / (points - 1))
  return { x, y: beliefs.map(({ density }) => x.map(density)) }
}

/** What is believed of a variant after the test; nearly all of it lies in `range`. */
interface Belief {
  value: number
  mean: number
  deviation: number
  density(x: number): number
  below(x: number): number
  range: [low: number, high: number]
}

/** So many standard deviations hold all that matters. */
const WIDE = 12
/** And so many what is worth drawing. */
const SHOWN = 3.5

function beliefOf(outcome: Outcome): Belief {
  if (outcome.kind === 'rate') {
    const [a, b] = [outcome.hits + 1, outcome.of - outcome.hits + 1]
    const mean = a / (a + b)
    const deviation = Math.sqrt((a * b) / ((a + b) ** 2 * (a + b + 1)))
    return {
      value: outcome.of ? outcome.hits / outcome.of : 0,
      mean,
      deviation,
      density: (x) => betaDensity(x, a, b),
      below: (x) => betaBelow(x, a, b),
      range: [Math.max(0, mean - WIDE * deviation), Math.min(1, mean + WIDE * deviation)],
    }
  }
  const { sum, squares, of } = outcome
  const mean = of ? sum / of : 0
  const variance = of > 1 ? Math.max(0, (squares - of * mean * mean) / (of - 1)) : 0
  // Where nobody paid anything, nothing is known of how much they might have.
  const deviation = of ? Math.sqrt(variance / of) || 1e-9 : 1
  return {
    value: mean,
    mean,
    deviation,
    density: (x) => normalDensity((x - mean) / deviation) / deviation,
    below: (x) => normalBelow((x - mean) / deviation),
    range: [mean - WIDE * deviation, mean + WIDE * deviation],
  }
}

const STEPS = 600

/** Simpson's rule, piece by piece between the cuts. */
function integral(
  from: number,
  to: number,
  cuts: readonly number[],
  f: (x: number) => number,
): number {
  const inner = cuts.filter((cut) => cut > from && cut < to).toSorted((a, b) => a - b)
  const ends = [from, ...new Set(inner), to]
  return ends.slice(1).reduce((sum, end, i) => sum + simpson(ends[i]!, end, f), 0)
}

function simpson(from: number, to: number, f: (x: number) => number): number {
  const h = (to - from) / STEPS
  let sum = f(from) + f(to)
  for (let i = 1; i < STEPS; i++) sum += (i % 2 ? 4 : 2) * f(from + i * h)
  return (sum * h) / 3
}
