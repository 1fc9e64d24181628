/** Random numbers from a seed: the same seed, the same account (mulberry32). */
export interface Chance {
  /** A number in 0..1. */
  next(): number
  /** Whether something happens that has this probability. */
  is(probability: number): boolean
  /** A whole number from `from` up to and including `to`. */
  between(from: number, to: number): number
  pick<T>(things: readonly T[]): T
  /** One of the things by its weight. */
  weighted<T>(things: readonly (readonly [T, number])[]): T
}

export function chanceFrom(seed: number): Chance {
  let state = seed >>> 0
  const next = () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = Math.imul(state ^ (state >>> 15), 1 | state)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
  return {
    next,
    is: (probability) => next() < probability,
    between: (from, to) => from + Math.floor(next() * (to - from + 1)),
    pick: (things) => things[Math.floor(next() * things.length)]!,
    weighted(things) {
      let at = next() * things.reduce((sum, [, weight]) => sum + weight, 0)
      for (const [thing, weight] of things) if ((at -= weight) < 0) return thing
      return things.at(-1)![0]
    },
  }
}
