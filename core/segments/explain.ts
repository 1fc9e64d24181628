import { kindOf } from './kinds'
import type { PersonFacts } from './person-facts'
import { readyRule, type Catalog } from './ready'
import { isGroup, type Rule } from './rule'
import { ruleToPredicate } from './to-predicate'
import type { Asked } from './values/moments'
import { writeCondition } from './write'

/** Why a person is in or not: each part of a rule with its verdict and, for a condition, the fact behind it. */
export interface Explanation {
  /** The condition in words; null for a group. */
  words: string | null
  group: 'all' | 'any' | 'none' | null
  holds: boolean
  /** What is on file, in words; for a reference that is not there, what is wrong. */
  fact: string | null
  parts: Explanation[]
}

/**
 * Explains a rule for one person. `day` writes a moment as people read it. Verdicts are those of
 * `ruleToPredicate`; where the rule as a whole can't be asked, nothing holds at its root.
 */
export function explainRule(
  rule: Rule,
  person: PersonFacts,
  catalog: Catalog,
  asked: Asked,
  day: (at: number) => string,
): Explanation {
  const broken = readyRule(rule, catalog).rule === null
  const explanation = explain(rule)
  return broken ? { ...explanation, holds: false } : explanation

  function explain(part: Rule): Explanation {
    if (isGroup(part)) {
      const parts = part.of.map(explain)
      return { words: null, group: part.kind, holds: holdsOf(part.kind, parts), fact: null, parts }
    }
    const { rule: ready, problems } = readyRule(part, catalog)
    const words = writeCondition(part, catalog)
    if (ready === null)
      return { words, group: null, holds: false, fact: problems[0]!.message, parts: [] }
    const holds = ruleToPredicate(ready, asked)(person)
    if (ready.kind === 'members') {
      const within = catalog.segments.get(ready.segmentId)!.rule
      return { words, group: null, holds, fact: null, parts: [explain(within)] }
    }
    const fact = isGroup(ready)
      ? null
      : kindOf(ready).fact(ready, person, { names: catalog, asked, day })
    return { words, group: null, holds, fact, parts: [] }
  }
}

function holdsOf(group: 'all' | 'any' | 'none', parts: Explanation[]): boolean {
  if (group === 'all') return parts.every(({ holds }) => holds)
  const some = parts.some(({ holds }) => holds)
  return group === 'any' ? some : !some
}
