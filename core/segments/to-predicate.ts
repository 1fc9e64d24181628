import { kindOf } from './kinds'
import type { Predicate } from './kinds/kind'
import type { ReadyRule } from './ready'
import type { Asked } from './values/moments'

/**
 * The rule as a question about one person. Agrees with `ruleToSql` on every rule and every person.
 * `null` is the rule that could not be made ready: nobody.
 */
export function ruleToPredicate(rule: ReadyRule | null, asked: Asked): Predicate {
  if (rule === null) return () => false
  const parts = () => (rule as { of: ReadyRule[] }).of.map((part) => ruleToPredicate(part, asked))
  switch (rule.kind) {
    case 'all': {
      const of = parts()
      return (person) => of.every((part) => part(person))
    }
    case 'any': {
      const of = parts()
      return (person) => of.some((part) => part(person))
    }
    case 'none': {
      const of = parts()
      return (person) => !of.some((part) => part(person))
    }
    case 'members':
      return ruleToPredicate(rule.of, asked)
    default:
      return kindOf(rule).predicate(rule, asked)
  }
}
