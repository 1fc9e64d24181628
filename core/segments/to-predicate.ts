import { DAY } from '../time'
import type { SubscriptionState } from '../people'
import type { Rule } from './rule'

/** What must be known of a person to decide any rule. */
export interface PersonFacts {
  joinedAt: number
  subscriptions: ReadonlyMap<number, SubscriptionState>
  tags: ReadonlySet<number>
}

/** The rule as a question about one person, for the moment `now`. Agrees with `ruleToSql`. */
export function ruleToPredicate(rule: Rule, now: number): (person: PersonFacts) => boolean {
  switch (rule.kind) {
    case 'all': {
      const parts = rule.of.map((part) => ruleToPredicate(part, now))
      return (person) => parts.every((part) => part(person))
    }
    case 'any': {
      const parts = rule.of.map((part) => ruleToPredicate(part, now))
      return (person) => parts.some((part) => part(person))
    }
    case 'none': {
      const parts = rule.of.map((part) => ruleToPredicate(part, now))
      return (person) => !parts.some((part) => part(person))
    }
    case 'joined': {
      const since = now - rule.withinDays * DAY
      return (person) => person.joinedAt > since && person.joinedAt <= now
    }
    case 'on-list':
      return (person) => person.subscriptions.get(rule.listId) === rule.state
    case 'tagged':
      return (person) => person.tags.has(rule.tagId)
  }
}
