import { otherWordsFor } from '../words'
import { kinds, type Condition } from './kinds'
import type { Offer } from './kinds/kind'
import type { Vocabulary } from './names'
import type { Rule } from './rule'
import { fold } from './values/fold'

/** Something one can ask: what it says, other words for it, and the rule one begins with. */
export interface Askable {
  words: string
  also: string
  rule: Rule
}

/** Everything one can ask of this account, the most used first. */
export function askables(vocabulary: Vocabulary): Askable[] {
  const offers = Object.values(kinds).flatMap((kind): Offer<Condition>[] => kind.offers(vocabulary))
  return [...offers.filter(({ many }) => !many), ...offers.filter(({ many }) => many)].map(
    ({ words, also, of, not }) => ({
      words,
      also,
      rule: not ? { kind: 'none', of: [of] } : of,
    }),
  )
}

/** Those that have every word of `text`, at the beginning of one of theirs; those that say it themselves first. */
export function findAskables(all: readonly Askable[], text: string, limit: number): Askable[] {
  const words = fold(text)
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean)
  const scored = all.flatMap((askable, i) => {
    const own = fold(askable.words).split(/[^\p{L}\p{N}]+/u)
    const also = askable.also.split(' ')
    const others = otherWordsFor(askable.words).flatMap((other) => other.split(' '))
    let score = 0
    for (const word of words) {
      if (own.some((one) => one === word)) score += 3
      else if (own.some((one) => one.startsWith(word))) score += 2
      else if (also.some((one) => one.startsWith(word))) score += 1
      else if (others.some((one) => one.startsWith(word))) score += 0.5
      else return []
    }
    return [{ askable, score: score / Math.max(1, words.length), i }]
  })
  return scored
    .sort((a, b) => b.score - a.score || a.i - b.i)
    .slice(0, limit)
    .map(({ askable }) => askable)
}
