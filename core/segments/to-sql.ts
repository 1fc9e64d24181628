import { sql, type Expression, type RawBuilder, type SqlBool } from 'kysely'
import { momentsOf, type Asked } from './moments'
import type { ReadyRule } from './ready'
import { eventToSql, mailToSql, ordersToSql } from './sql-acts'
import { compare, compareJson, inMoments, joined, type Truth } from './sql-comparisons'
import { tierSpans, type TierSpan } from './tier-spans'

// A plus before a column keeps SQLite from its index: rules keep many people, and reading `facts` from
// end to end is then much faster than going back and forth between an index and the rows.

type Leaf<K extends ReadyRule['kind']> = Extract<ReadyRule, { kind: K }>

/**
 * The rule as a condition on rows of `facts`, one for each person. It is true or false, never
 * unknown: a missing value matches "is empty" and "is not", and nothing else. `null` is the rule that
 * could not be made ready: nobody.
 * @example selectFrom('facts').where(() => ruleToSql(rule, asked)).select('person_id')
 */
export function ruleToSql(rule: ReadyRule | null, asked: Asked): Expression<SqlBool> {
  return rule === null ? sql<SqlBool>`0` : toSql(rule, asked)
}

function toSql(rule: ReadyRule, asked: Asked): Truth {
  switch (rule.kind) {
    case 'all':
      return joined(
        rule.of.map((part) => toSql(part, asked)),
        sql` and `,
        sql<SqlBool>`1`,
      )
    case 'any':
      return joined(
        rule.of.map((part) => toSql(part, asked)),
        sql` or `,
        sql<SqlBool>`0`,
      )
    case 'none':
      return sql<SqlBool>`not ${joined(
        rule.of.map((part) => toSql(part, asked)),
        sql` or `,
        sql<SqlBool>`0`,
      )}`
    case 'segment':
      return toSql(rule.of, asked)
    case 'frozen':
      return sql<SqlBool>`exists (select 1 from frozen_people z where z.segment_id = ${rule.segmentId} and z.person_id = facts.person_id)`
    case 'field':
      return fieldToSql(rule, asked)
    case 'joined':
      return inMoments(sql`facts.joined_at`, momentsOf(rule.when, asked), 'never null')
    case 'tagged':
      return sql<SqlBool>`exists (select 1 from person_tags t where t.person_id = facts.person_id and t.tag_id = ${rule.tagId})`
    case 'on-list':
      return onListToSql(rule, asked)
    case 'address': {
      const column = rule.part === 'whole' ? sql`normal` : sql`domain`
      return compare(ofPerson(column), 'text', rule.test, asked)
    }
    case 'mail':
      return mailToSql(rule, asked)
    case 'orders':
      return ordersToSql(rule, asked)
    case 'ordered':
      return inMoments(
        rule.which === 'first' ? sql`facts.first_order_at` : sql`facts.last_order_at`,
        momentsOf(rule.when, asked),
      )
    case 'event':
      return eventToSql(rule, asked)
    case 'sequence': {
      const state = rule.is === 'never' ? sql`` : sql` and n.state = ${rule.is}`
      const entered = sql<SqlBool>`exists (select 1 from enrolments n where n.person_id = facts.person_id and n.sequence_id = ${rule.sequenceId}${state})`
      return rule.is === 'never' ? sql<SqlBool>`not ${entered}` : entered
    }
    case 'tier':
      return joined(tierSpans(rule.of, asked.now).map(inTier), sql` or `, sql<SqlBool>`0`)
  }
}

function ofPerson(column: RawBuilder<unknown>): RawBuilder<unknown> {
  return sql`(select ${column} from people p where p.id = facts.person_id)`
}

function inTier({ from, to }: TierSpan): Truth {
  const parts: Truth[] = []
  if (from !== null) parts.push(sql<SqlBool>`coalesce(+facts.keenness >= ${from}, 0)`)
  if (to !== null) parts.push(sql<SqlBool>`coalesce(+facts.keenness < ${to}, 1)`)
  return joined(parts, sql` and `, sql<SqlBool>`1`)
}

function fieldToSql({ key, family, test }: Leaf<'field'>, asked: Asked): Truth {
  if (key === 'first_name' || key === 'last_name')
    return compare(sql`nullif(${ofPerson(sql.ref(key))}, '')`, 'text', test, asked)
  return compareJson(sql`p.fields`, `$.${key}`, family, test, asked, (value) => ofPerson(value))
}

function onListToSql(of: Leaf<'on-list'>, asked: Asked): Truth {
  const parts = [
    sql<SqlBool>`s.person_id = facts.person_id`,
    sql<SqlBool>`s.list_id = ${of.listId}`,
    sql<SqlBool>`s.state = ${of.state}`,
  ]
  if (of.since) parts.push(inMoments(sql`s.since`, momentsOf(of.since, asked)))
  if (of.way)
    parts.push(
      sql<SqlBool>`coalesce((select e.way from evidence e where e.person_id = s.person_id and e.list_id = s.list_id order by e.id desc limit 1) = ${of.way}, 0)`,
    )
  return sql<SqlBool>`exists (select 1 from subscriptions s where ${sql.join(parts, sql` and `)})`
}
