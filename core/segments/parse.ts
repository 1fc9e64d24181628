import { parseCondition } from './parse-condition'
import type { Names } from './names'
import type { Rule } from './rule'
import { tidyRule } from './tidy'
import { TokenReader } from './values/token-reader'
import { RuleTextError, tokensOf } from './values/tokens'

export type ParsedRule =
  { ok: true; rule: Rule } | { ok: false; message: string; at: number; length: number }

/**
 * Reads the text of a rule. `and` binds closer than `or`; parentheses group.
 *
 *     rule      = all { "or" all }
 *     all       = part { "and" part }
 *     part      = "not" part | "neither" part { "nor" part } | "(" rule ")" | "everyone" | "nobody" | condition
 *
 * What conditions there are stands in docs/users.md; an error points at the word it is about.
 */
export function parseRule(text: string, names: Names): ParsedRule {
  try {
    if (text.length > 20_000) throw new RuleTextError('This is too long for a rule.', 20_000, 1)
    return { ok: true, rule: tidyRule(readWhole(new TokenReader(tokensOf(text)), names)) }
  } catch (error) {
    if (error instanceof RuleTextError)
      return { ok: false, message: error.message, at: error.at, length: error.length }
    throw error
  }
}

/** How deep groups may be nested. */
const DEEPEST = 60

function readWhole(r: TokenReader, names: Names): Rule {
  if (r.tokens.length === 1) throw r.fault('Write a rule, such as: joined in the last 30 days.')
  const rule = readAny(r, names, 0)
  if (r.token.kind !== 'end')
    throw r.fault(`“${r.token.text}” can’t follow here; “and” or “or” may be missing.`)
  return rule
}

function readAny(r: TokenReader, names: Names, depth: number): Rule {
  const of = [readAll(r, names, depth)]
  while (r.take('or')) of.push(readAll(r, names, depth))
  return of.length === 1 ? of[0]! : { kind: 'any', of }
}

function readAll(r: TokenReader, names: Names, depth: number): Rule {
  const of = [readPart(r, names, depth)]
  while (r.take('and')) of.push(readPart(r, names, depth))
  return of.length === 1 ? of[0]! : { kind: 'all', of }
}

function readPart(r: TokenReader, names: Names, depth: number): Rule {
  if (depth >= DEEPEST) throw r.fault('This rule is nested too deep.')
  const inner = depth + 1
  if (r.take('not')) return { kind: 'none', of: [readPart(r, names, inner)] }
  if (r.take('neither')) {
    const of = [readPart(r, names, inner)]
    while (r.take('nor')) of.push(readPart(r, names, inner))
    return { kind: 'none', of }
  }
  if (r.take('everyone')) return { kind: 'all', of: [] }
  if (r.take('nobody')) return { kind: 'any', of: [] }
  if (r.take('(')) {
    const rule = readAny(r, names, inner)
    r.expect(')')
    return rule
  }
  return parseCondition(r, names)
}
