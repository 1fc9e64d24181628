import { factsAsOf } from './as-of'
import type { Predicate } from './kinds/kind'
import type { PersonFacts } from './person-facts'
import { readyRule, type Catalog } from './ready'
import { isGroup, type Rule } from './rule'
import { ruleToPredicate } from './to-predicate'
import type { Asked } from './values/moments'
import { writeRule } from './write'

/**
 * Says because of which line of a rule somebody came or went between two moments: the first line whose
 * verdict is another now than then, as text; null where it is none, because a value or a tag was changed.
 */
export function causeAsker(
  rule: Rule,
  catalog: Catalog,
  now: Asked,
  before: Asked,
): (person: PersonFacts) => string | null {
  const parts = isGroup(rule) && rule.kind === 'all' ? rule.of : [rule]
  const lines = parts.flatMap((part) => {
    const ready = readyRule(part, catalog).rule
    return ready === null
      ? []
      : [
          {
            words: writeRule(part, catalog),
            now: ruleToPredicate(ready, now),
            then: ruleToPredicate(ready, before),
          },
        ]
  })
  return (person) => {
    const then = factsAsOf(person, before.now)
    const held = (predicate: Predicate) => then !== null && predicate(then)
    return lines.find((line) => line.now(person) !== held(line.then))?.words ?? null
  }
}
