/**
 * Luck without a state: the same numbers and names give the same, so that nothing hangs on the order in which things are
 * drawn. Numbers of luck are whole, of 32 bits.
 */

/** Two numbers as one; each pair its own, as good as always (after MurmurHash3’s mixing). */
export function mixed(a: number, b: number): number {
  let h = Math.imul(a ^ Math.imul(b, 0xcc9e2d51), 0x1b873593)
  h = Math.imul(h ^ (h >>> 15), 0x85ebca6b)
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35)
  return (h ^ (h >>> 16)) >>> 0
}

/** The luck that somebody has with one thing. */
export const luckOf = (luck: number, name: string): number => mixed(luck, numberOf(name))

/** The nth draw of it, from 0 up to but not including 1. */
export const luckAt = (luck: number, n: number): number => mixed(luck, n + 1) / 2 ** 32

/** A name as 32 bits (FNV-1a), reckoned once. */
function numberOf(name: string): number {
  let number = numbers.get(name)
  if (number === undefined) {
    number = 0x811c9dc5
    for (const letter of name) number = Math.imul(number ^ letter.codePointAt(0)!, 0x01000193)
    if (numbers.size > MOST_KEPT) numbers.clear()
    numbers.set(name, number)
  }
  return number
}
const MOST_KEPT = 10_000
const numbers = new Map<string, number>()
