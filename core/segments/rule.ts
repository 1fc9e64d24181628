import type { SubscriptionState } from '../people/subscription'

/** A rule is a tree: groups of conditions. An empty group `all` or `none` keeps everybody, `any` nobody. */
export type Rule = Group | Condition

export interface Group {
  kind: 'all' | 'any' | 'none'
  of: Rule[]
}

export type Condition =
  | { kind: 'joined'; withinDays: number }
  | { kind: 'on-list'; listId: number; state: SubscriptionState }
  | { kind: 'tagged'; tagId: number }

const states = ['pending', 'subscribed', 'unsubscribed']

/** Reads a rule from JSON that came from outside; null where it is none. */
export function readRule(json: unknown, depth = 0): Rule | null {
  if (typeof json !== 'object' || json === null || depth > 20) return null
  const rule = json as Record<string, unknown>
  switch (rule.kind) {
    case 'all':
    case 'any':
    case 'none': {
      if (!Array.isArray(rule.of)) return null
      const of = rule.of.map((part) => readRule(part, depth + 1))
      return of.every((part) => part !== null) ? { kind: rule.kind, of } : null
    }
    case 'joined':
      return isWhole(rule.withinDays, 1, 36_500)
        ? { kind: 'joined', withinDays: rule.withinDays }
        : null
    case 'on-list':
      return isWhole(rule.listId, 1) && states.includes(rule.state as string)
        ? { kind: 'on-list', listId: rule.listId, state: rule.state as SubscriptionState }
        : null
    case 'tagged':
      return isWhole(rule.tagId, 1) ? { kind: 'tagged', tagId: rule.tagId } : null
    default:
      return null
  }
}

function isWhole(value: unknown, min: number, max = Number.MAX_SAFE_INTEGER): value is number {
  return Number.isSafeInteger(value) && (value as number) >= min && (value as number) <= max
}
