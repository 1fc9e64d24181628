import { sql, type Expression, type SqlBool } from 'kysely'
import type { Rule } from '../core/segments'
import { waterfall, type WaterfallStep } from '../core/delivery'
import { one, q, type Database } from './query'
import { isMember } from './segments'

/** Who a mailing is for: the subscribers of a list, or those of them that a rule keeps. */
export interface Audience {
  listId: number
  rule: Rule | null
}

/** The condition on `people` that holds for everybody eligible for a mailing to this audience. */
export function eligible(db: Database, audience: Audience, now: number): Expression<SqlBool> {
  return and(onList(audience.listId), notSetAside, inSegment(db, audience.rule, now))
}

/** How many drop out at each step, exactly. One pass over the list. */
export function audienceWaterfall(db: Database, audience: Audience, now: number): WaterfallStep[] {
  const kept = and(notSetAside, inSegment(db, audience.rule, now))
  const counts = one(
    db,
    q
      .selectFrom('people')
      .select((eb) => [
        eb.fn.countAll<number>().as('onList'),
        sql<number>`coalesce(sum(${notSetAside}), 0)`.as('notSetAside'),
        sql<number>`coalesce(sum(${kept}), 0)`.as('inSegment'),
      ])
      .where(() => onList(audience.listId)),
  )!
  return waterfall(counts)
}

/** How many of the audience have no value for a field; null where there is no such field. */
export function countGaps(db: Database, audience: Audience, key: string, now: number): number {
  const value =
    key === 'first_name' || key === 'last_name'
      ? sql`people.${sql.ref(key)}`
      : key === 'address'
        ? sql`people.address`
        : sql`json_extract(people.fields, ${`$.${key}`})`
  return one(
    db,
    q
      .selectFrom('people')
      .select((eb) => eb.fn.countAll<number>().as('n'))
      .where(() => eligible(db, audience, now))
      .where(() => sql<SqlBool>`coalesce(${value}, '') = ''`),
  )!.n
}

/** People of the audience to read a letter as, in a fixed order. */
export function audiencePeople(
  db: Database,
  audience: Audience,
  now: number,
  limit: number,
  offset: number,
) {
  return q
    .selectFrom('people')
    .select(['id', 'address', 'first_name', 'last_name', 'fields'])
    .where(() => eligible(db, audience, now))
    .orderBy('id')
    .limit(limit)
    .offset(offset)
}

function onList(listId: number): Expression<SqlBool> {
  return sql<SqlBool>`people.id in (select person_id from subscriptions where list_id = ${listId} and state = 'subscribed')`
}

const notSetAside = sql<SqlBool>`people.id not in (select person_id from set_aside)`

function inSegment(db: Database, rule: Rule | null, now: number): Expression<SqlBool> {
  return rule ? isMember(db, rule, now) : sql<SqlBool>`true`
}

function and(...parts: Expression<SqlBool>[]): Expression<SqlBool> {
  return parts.reduce((a, b) => sql<SqlBool>`(${a}) and (${b})`)
}
