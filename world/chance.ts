/** A number in 0..1 that is always the same for the same words: what makes a stand-in somebody in particular. */
export function chanceOf(...words: (string | number)[]): number {
  let hash = 2166136261
  for (const letter of words.join('\u0001')) {
    hash ^= letter.codePointAt(0)!
    hash = Math.imul(hash, 16777619)
  }
  hash ^= hash >>> 16
  hash = Math.imul(hash, 0x85ebca6b)
  hash ^= hash >>> 13
  hash = Math.imul(hash, 0xc2b2ae35)
  hash ^= hash >>> 16
  return (hash >>> 0) / 4294967296
}
