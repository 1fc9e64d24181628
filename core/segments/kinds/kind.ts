import type { RawBuilder } from 'kysely'
import type { Names, Vocabulary } from '../names'
import type { PersonFacts } from '../person-facts'
import type { Asked } from '../values/moments'
import type { Truth } from '../values/sql'
import type { TokenReader } from '../values/token-reader'

export type Predicate = (person: PersonFacts) => boolean

/**
 * A kind of condition: everything that is to be known of it. `Ready` is the condition with what it refers to found.
 * `sql`, `predicate` and `fact` must agree: the laws in `database/segments` hold them to it.
 */
export interface ConditionKind<Of extends { kind: string }, Ready = Of> {
  /** Reads it from JSON that came from outside; null where it is none. */
  read(json: Readonly<Record<string, unknown>>): Of | null
  /** What it refers to, found; or in words what is gone. */
  ready(of: Of, names: Names): Ready | string
  /** The condition on rows of `facts`; true or false, never unknown. */
  sql(of: Ready, asked: Asked): Truth
  /** Whether the person's own row of `facts` says it, so that nothing is looked up; left out: it does not. */
  inFacts?(of: Ready): boolean
  /** The ids of all whom it keeps, from an index; null where asking one by one is faster. */
  ids?(of: Ready, asked: Asked): RawBuilder<unknown> | null
  predicate(of: Ready, asked: Asked): Predicate
  /** What is on file of somebody about it, in words. `day` writes a moment as people read it. */
  fact(of: Ready, person: PersonFacts, about: About): string | null
  /** The words its text may begin with, and how each goes on. */
  phrases: readonly Phrase<Of>[]
  /** The condition as text, which `phrases` read back. `taken`: words with which a condition begins. */
  write(of: Of, names: Names, taken: ReadonlySet<string>): string
  /** What of it is offered to somebody who adds a rule, the most used first. */
  offers(vocabulary: Vocabulary): Offer<Of>[]
  /** "never …": the same asked so that it holds for who did it not once; null where that can't be said. */
  never?(of: Of): Of | null
}

export interface About {
  names: Names
  asked: Asked
  day: (at: number) => string
}

/** A beginning of a condition's text, in lower case; the longest that stands there is the one that is meant. */
export interface Phrase<Of> {
  begins: string
  read(r: TokenReader, names: Names): Of
}

/** Something one can ask: what it says, other words for it, and the condition one begins with. */
export interface Offer<Of> {
  words: string
  also: string
  of: Of
  /** Offered so that it must not hold. */
  not?: true
  /** One of very many alike, which stand behind all others. */
  many?: true
}
