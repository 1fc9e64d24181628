import { expressionBuilder, type Expression, type ExpressionBuilder, type SqlBool } from 'kysely'
import { DAY } from '../time'
import type { Condition, Rule } from './rule'
import type { SubscriptionState } from '../people'

/** The columns a rule looks at. The whole schema has these tables and more. */
export interface SegmentTables {
  people: { id: number; joined_at: number }
  subscriptions: { person_id: number; list_id: number; state: SubscriptionState }
  person_tags: { person_id: number; tag_id: number }
}

type Builder = ExpressionBuilder<SegmentTables, 'people'>

/**
 * The rule as a condition on rows of `people`, for the moment `now`.
 * @example db.selectFrom('people').where(() => ruleToSql(rule, now)).select('id')
 */
export function ruleToSql(rule: Rule, now: number): Expression<SqlBool> {
  return toSql(expressionBuilder<SegmentTables, 'people'>(), rule, now)
}

function toSql(eb: Builder, rule: Rule, now: number): Expression<SqlBool> {
  switch (rule.kind) {
    case 'all':
      return eb.and(rule.of.map((part) => toSql(eb, part, now)))
    case 'any':
      return eb.or(rule.of.map((part) => toSql(eb, part, now)))
    case 'none':
      return eb.not(eb.or(rule.of.map((part) => toSql(eb, part, now))))
    default:
      return conditionToSql(eb, rule, now)
  }
}

function conditionToSql(eb: Builder, condition: Condition, now: number): Expression<SqlBool> {
  switch (condition.kind) {
    case 'joined':
      return eb.and([
        eb('people.joined_at', '>', now - condition.withinDays * DAY),
        eb('people.joined_at', '<=', now),
      ])
    case 'on-list':
      return eb.exists(
        eb
          .selectFrom('subscriptions')
          .select(eb.lit(1).as('one'))
          .whereRef('subscriptions.person_id', '=', 'people.id')
          .where('subscriptions.list_id', '=', condition.listId)
          .where('subscriptions.state', '=', condition.state),
      )
    case 'tagged':
      return eb.exists(
        eb
          .selectFrom('person_tags')
          .select(eb.lit(1).as('one'))
          .whereRef('person_tags.person_id', '=', 'people.id')
          .where('person_tags.tag_id', '=', condition.tagId),
      )
  }
}
