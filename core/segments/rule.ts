import { kinds, type Condition } from './kinds'

/** A rule is a tree: groups of conditions. An empty group `all` or `none` keeps everybody, `any` nobody. */
export type Rule = Group | Condition

export interface Group {
  kind: 'all' | 'any' | 'none'
  of: Rule[]
}

/** Reads a rule from JSON that came from outside; null where it is none. */
export function readRule(json: unknown, depth = 0): Rule | null {
  if (typeof json !== 'object' || json === null || depth > 20) return null
  const rule = json as Record<string, unknown>
  if (rule.kind !== 'all' && rule.kind !== 'any' && rule.kind !== 'none') {
    return isKind(rule.kind) ? kinds[rule.kind].read(rule) : null
  }
  if (!Array.isArray(rule.of) || rule.of.length > 200) return null
  const of = rule.of.map((part) => readRule(part, depth + 1))
  return of.every((part) => part !== null) ? { kind: rule.kind, of } : null
}

const isKind = (kind: unknown): kind is Condition['kind'] =>
  typeof kind === 'string' && Object.hasOwn(kinds, kind)

/** The rule with each of its conditions changed. */
export function mapConditions(rule: Rule, change: (part: Condition) => Condition): Rule {
  return isGroup(rule)
    ? { ...rule, of: rule.of.map((part) => mapConditions(part, change)) }
    : change(rule)
}

/** Every condition of a rule, in reading order. */
export function conditionsOf(rule: Rule): Condition[] {
  return isGroup(rule) ? rule.of.flatMap(conditionsOf) : [rule]
}

export function isGroup<R extends { kind: string }>(
  rule: R,
): rule is Extract<R, { kind: 'all' | 'any' | 'none' }> {
  return rule.kind === 'all' || rule.kind === 'any' || rule.kind === 'none'
}
