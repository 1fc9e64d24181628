import { sql, type Expression, type SqlBool } from 'kysely'
import type { Rule } from '../../core/segments'
import { waterfall, type WaterfallStep, type WaterfallTest } from '../../core/delivery'
import { DAY } from '../../core/time'
import { notPausedAt, underOwnLimitAt } from '../readers'
import { all, one, q, raw, type Database } from '../query'
import { membersOf } from './segments'

/** Who a mailing is for: the subscribers of a list, or those of them that a rule keeps, but for those left out. */
export interface Audience {
  listId: number
  rule: Rule | null
  /** Its members are not mailed. */
  leftOut?: Rule | null
  cap?: FrequencyCap | null
}

/** At most so many mailings in so many days to one person. */
export interface FrequencyCap {
  mailings: number
  days: number
}

/** The condition on `people` that holds for everybody eligible for a mailing to this audience. */
export function eligible(db: Database, audience: Audience, now: number): Expression<SqlBool> {
  const tests = testsOf(db, audience, now).map(([, passes]) => passes)
  return and(onList(audience.listId), passing(tests))
}

/** How many are eligible, exactly. */
export function countAudience(db: Database, audience: Audience, now: number): number {
  const tests = testsOf(db, audience, now).map(([, passes]) => passes)
  const count = sql<{
    n: number
  }>`select count(*) as n ${factsOnList(audience.listId)} and ${and(...tests)}`
  return one(db, raw(count))!.n
}

/** How many drop out at each step, exactly. One pass over the list. */
export function audienceWaterfall(db: Database, audience: Audience, now: number): WaterfallStep[] {
  const tests = testsOf(db, audience, now)
  const failed = sql.join(
    tests.map(([, passes], no) => sql`when (${passes}) is not true then ${sql.lit(no)}`),
    sql` `,
  )
  const sums = sql.join(tests.map((_, no) => sql`count(*) filter (where failed = ${sql.lit(no)})`))
  // With a limit, though it is none, SQLite finds who fails what once for each person and not for each sum.
  const counts = sql<{ on_list: number; sums: string }>`
    select count(*) as on_list, json_array(${sums}) as sums
    from (select case ${failed} else -1 end as failed ${factsOnList(audience.listId)} limit -1)`
  const { on_list, sums: out } = one(db, raw(counts))!
  const outs = JSON.parse(out) as number[]
  return waterfall(
    on_list,
    tests.map(([test], no) => [test, outs[no]!]),
  )
}

/** Who drops out at a step, in a fixed order. */
export function dropOuts(
  db: Database,
  audience: Audience,
  step: WaterfallTest,
  now: number,
  { limit, offset }: { limit: number; offset: number },
) {
  const tests = testsOf(db, audience, now)
  const no = tests.findIndex(([test]) => test === step)
  if (no < 0) return []
  return all(
    db,
    q
      .selectFrom('people')
      .select(['id', 'address', 'first_name', 'last_name'])
      .where(() => onList(audience.listId))
      .where(() =>
        passing([
          ...tests.slice(0, no).map(([, passes]) => passes),
          sql<SqlBool>`(${tests[no]![1]}) is not true`,
        ]),
      )
      .orderBy('id')
      .limit(limit)
      .offset(offset),
  )
}

/** What people on the list are asked besides, in the order of the waterfall: conditions on their `facts`. */
function testsOf(
  db: Database,
  { rule, leftOut, cap }: Audience,
  now: number,
): (readonly [WaterfallTest, Expression<SqlBool>])[] {
  return [
    ['set-aside', notSetAside],
    ['segment', rule ? membersOf(db, rule, now) : sql<SqlBool>`true`],
    ...(leftOut ? [['left-out', sql<SqlBool>`not (${membersOf(db, leftOut, now)})`] as const] : []),
    ['paused', notPausedAt(now)],
    ['own-limit', underOwnLimitAt(now)],
    ...(cap ? [['cap', underCap(cap, now)] as const] : []),
  ]
}

/** How many of the audience have their mailbox at a domain. */
export function countAtDomain(
  db: Database,
  audience: Audience,
  domain: string,
  now: number,
): number {
  const there = q
    .selectFrom('people')
    .select((eb) => eb.fn.countAll<number>().as('n'))
    .where('domain', '=', domain)
  return one(
    db,
    there.where(() => eligible(db, audience, now)),
  )!.n
}

/** How many of the audience have no value for a field. */
export function countGaps(db: Database, audience: Audience, key: string, now: number): number {
  return one(
    db,
    lacking(db, audience, key, now).select((eb) => eb.fn.countAll<number>().as('n')),
  )!.n
}

/** Somebody of the audience who has no value for a field. */
export function somebodyLacking(
  db: Database,
  audience: Audience,
  key: string,
  now: number,
): number | undefined {
  return one(db, lacking(db, audience, key, now).select('id').orderBy('id').limit(1))?.id
}

function lacking(db: Database, audience: Audience, key: string, now: number) {
  const value =
    key === 'first_name' || key === 'last_name'
      ? sql`people.${sql.ref(key)}`
      : key === 'address'
        ? sql`people.address`
        : sql`json_extract(people.fields, ${`$.${key}`})`
  return q
    .selectFrom('people')
    .where(() => eligible(db, audience, now))
    .where(() => sql<SqlBool>`coalesce(${value}, '') = ''`)
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

/** The facts of those on a list, found by its subscriptions; a condition may follow. */
function factsOnList(listId: number) {
  return sql`from subscriptions as s join facts on facts.person_id = s.person_id
    where s.list_id = ${listId} and s.state = 'subscribed'`
}

/** Conditions on `facts`, as one on `people`. */
function passing(tests: Expression<SqlBool>[]): Expression<SqlBool> {
  return sql<SqlBool>`exists (select 1 from facts where facts.person_id = people.id and ${and(...tests)})`
}

const notSetAside = sql<SqlBool>`facts.person_id not in (select person_id from set_aside)`

/** Whether the last mailings but so many are over is known of each; more than five are counted. */
function underCap({ mailings, days }: FrequencyCap, now: number): Expression<SqlBool> {
  const since = now - days * DAY
  const nth = sentAt[Math.min(mailings, sentAt.length) - 1]!
  const known = sql<SqlBool>`coalesce(${sql.ref(`facts.${nth}`)}, 0) <= ${since}`
  if (mailings <= sentAt.length) return known
  return sql<SqlBool>`(${known}
    or (select count(*) from recipients as r where r.person_id = facts.person_id and r.accepted_at > ${since}) < ${mailings})`
}

/** When somebody was mailed last, the time before, and so on. */
const sentAt = ['last_sent_at', 'sent_2nd_at', 'sent_3rd_at', 'sent_4th_at', 'sent_5th_at'] as const

function and(...parts: Expression<SqlBool>[]): Expression<SqlBool> {
  return parts.reduce((a, b) => sql<SqlBool>`(${a}) and (${b})`)
}
