import type { MessageParts } from '../../delivery'
import type { Rule } from '../../segments'
import type { LetterLink } from '../links'
import type { Condition } from '../shown-to'
import { fillOf, type CompiledLetter } from './compile'

/** A compiled letter as plain JSON: it crosses the border of a process, and is kept for good. */
export interface PackedLetter {
  parts: MessageParts
  /** What each slot is filled with. */
  fills: string[]
  rules: Rule[]
  conditions: Condition[]
  links: LetterLink[]
  weight: number
}

export function packLetter({ fills, ...letter }: CompiledLetter): PackedLetter {
  return { ...letter, fills: fills.map(({ expression }) => expression) }
}

/** Throws where a fill-in can't be read. */
export function unpackLetter({ fills, ...letter }: PackedLetter): CompiledLetter {
  return { ...letter, fills: fills.map(fillOf) }
}
