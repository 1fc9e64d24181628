import { isGroup, type Rule } from './rule'

/** The same rule without groups that group nothing: one part of `all` or `any` is that part. */
export function tidyRule(rule: Rule): Rule {
  if (!isGroup(rule)) return rule
  const of = rule.of.map(tidyRule)
  if (rule.kind !== 'none') return of.length === 1 ? of[0]! : { kind: rule.kind, of }
  return of.length === 0 ? { kind: 'all', of: [] } : { kind: 'none', of }
}
