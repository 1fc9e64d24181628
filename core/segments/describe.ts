import type { Rule } from './rule'

/** Names for the things a rule refers to by id. */
export interface RuleNames {
  list(id: number): string
  tag(id: number): string
}

/** The rule as a phrase: "joined in the last 30 days and on Offers". */
export function describeRule(rule: Rule, names: RuleNames): string {
  switch (rule.kind) {
    case 'all':
      return rule.of.length ? rule.of.map((part) => inner(part, names)).join(' and ') : 'everyone'
    case 'any':
      return rule.of.length ? rule.of.map((part) => inner(part, names)).join(' or ') : 'nobody'
    case 'none':
      return rule.of.length
        ? `neither ${rule.of.map((part) => inner(part, names)).join(' nor ')}`
        : 'everyone'
    case 'joined':
      return `joined in the last ${rule.withinDays} ${rule.withinDays === 1 ? 'day' : 'days'}`
    case 'on-list':
      return rule.state === 'subscribed'
        ? `on ${names.list(rule.listId)}`
        : `${rule.state} on ${names.list(rule.listId)}`
    case 'tagged':
      return `tagged ${names.tag(rule.tagId)}`
  }
}

function inner(rule: Rule, names: RuleNames): string {
  const text = describeRule(rule, names)
  return 'of' in rule && rule.of.length > 1 ? `(${text})` : text
}
