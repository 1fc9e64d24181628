import { sumSql } from '../../core/counting'
import { sql, type Expression, type Selectable, type SqlBool } from 'kysely'
import { readPlan, type DispatchPlan, type PartCounts, type PartKind } from '../../core/dispatch'
import { keennessOf, tiers, type Tier } from '../../core/standing'
import { HOUR, isZone, localInputToTime, nextHour } from '../../core/time'
import { type Audience, eligible } from '../segments'
import { readFields } from '../people'
import { bestHours } from './best-hours'
import { pausedSince, type Mailing } from './mailings'
import { all, one, prepared, q, raw, run, transact, type Database } from '../query'
import { planRecipients, type Share } from './plan-recipients'
import type { Schema } from '../schema'
import { variantsOf } from './variants'
import { markOf } from '../versions'

/** Some of a mailing's people, fixed and queued together when it begins. */
export type Part = Selectable<Schema['mailing_parts']> & { kind: PartKind }

export function planOf(mailing: Pick<Mailing, 'plan'>): DispatchPlan {
  return readPlan(JSON.parse(mailing.plan))
}

/** Which version a plan is: whoever changes it says which one they saw. */
export function planVersion({ plan }: Pick<Mailing, 'plan'>): string {
  return markOf(plan)
}

export function addParts(db: Database, mailingId: number, kinds: readonly PartKind[]) {
  kinds.forEach((kind, no) =>
    run(db, q.insertInto('mailing_parts').values({ mailing_id: mailingId, no, kind })),
  )
}

/** The parts of a mailing in their order; none where it began before there were parts. */
export function partsOfMailing(db: Database, mailingId: number): Part[] {
  return all(
    db,
    q.selectFrom('mailing_parts').selectAll().where('mailing_id', '=', mailingId).orderBy('no'),
  ) as Part[]
}

/** Whether all parts of a mailing have begun. */
export function allPartsBegun(db: Database, mailingId: number): boolean {
  return !partsOfMailing(db, mailingId).some(({ begun_at }) => begun_at === null)
}

/** Keeps a share of the audience from being mailed, to compare with later. How many they are. */
export function holdOut(
  db: Database,
  mailing: Mailing,
  audience: Audience,
  share: number,
  now: number,
): number {
  if (share === 0) return 0
  return run(
    db,
    q
      .insertInto('holdouts')
      .columns(['mailing_id', 'person_id', 'at'])
      .expression((eb) =>
        eb
          .selectFrom('people')
          .select([eb.val(mailing.id).as('mailing_id'), 'people.id', eb.val(now).as('at')])
          .where(() => eligible(db, audience, now))
          .where(() => sql<SqlBool>`slot_of('holdout', ${mailing.id}, people.id) < ${share}`),
      ),
  ).changes
}

/** Fixes who is in a part, as things stand now, and queues them. How many they are; null where it had begun. */
export function beginPart(
  db: Database,
  mailing: Mailing,
  part: Part,
  audience: Audience,
  zone: string,
  now: number,
): number | null {
  const plan = planOf(mailing)
  return transact(db, () => {
    const { changes } = run(
      db,
      q
        .updateTable('mailing_parts')
        .set({ begun_at: now })
        .where('mailing_id', '=', mailing.id)
        .where('no', '=', part.no)
        .where('begun_at', 'is', null),
    )
    if (changes === 0) return null
    const share = shareOf(db, mailing, plan, part, zone, now)
    beginHoldout(db, mailing.id, part.no, audience, share, now)
    const many = planRecipients(db, mailing.id, audience, now, {
      ...share,
      only: and([...share.only, ...mailed(mailing, plan)]),
      part: part.no,
    })
    for (const of of [planned, heldOut]) {
      if (plan.pace === 'best-hour' && part.kind !== 'test')
        atBestHours(db, of, mailing.id, part.no, zone, now)
      if (plan.pace === 'local-time') atLocalTimes(db, of, mailing.id, part.no, plan, zone, now)
    }
    return many
  })
}

/** Those held out whom a part would have been for: their window begins when they would have got it. */
function beginHoldout(
  db: Database,
  mailingId: number,
  no: number,
  audience: Audience,
  { only, due }: ReturnType<typeof shareOf>,
  now: number,
) {
  const theirs = sql<SqlBool>`${and([sql<SqlBool>`people.id = holdouts.person_id`, eligible(db, audience, now), ...only])}`
  run(
    db,
    raw(sql`update holdouts set part = ${no}, at = (select ${due ?? sql`${now}`} from people where people.id = holdouts.person_id)
      where mailing_id = ${mailingId} and part is null and exists (select 1 from people where ${theirs})`),
  )
}

const mailed = (mailing: Mailing, { holdout }: DispatchPlan): Expression<SqlBool>[] =>
  holdout > 0 ? [sql<SqlBool>`slot_of('holdout', ${mailing.id}, people.id) >= ${holdout}`] : []

function and(conditions: readonly Expression<SqlBool>[]): Expression<SqlBool> {
  return conditions.reduce((whole, one) => sql<SqlBool>`${whole} and ${one}`, sql<SqlBool>`1`)
}

/** Where it stands when somebody of a part gets it, or would have got it. */
const planned = { table: sql.table('recipients'), time: sql.ref('due') }
const heldOut = { table: sql.table('holdouts'), time: sql.ref('at') }
type Timed = typeof planned

/** What came of all the parts of a mailing that have begun. */
export function countsSoFar(db: Database, mailingId: number): PartCounts {
  const sums: PartCounts = { tried: 0, bounced: 0, complained: 0, deferred: 0 }
  for (const { no, begun_at } of partsOfMailing(db, mailingId)) {
    if (begun_at === null) continue
    const counts = countsOfPart(db, mailingId, no)
    for (const key of Object.keys(sums) as (keyof PartCounts)[]) sums[key] += counts[key]
  }
  return sums
}

/** From here on a mailing is watched anew: somebody has looked at what stopped it. */
export function watchAnew(db: Database, mailingId: number) {
  const watched_from = JSON.stringify(countsSoFar(db, mailingId))
  run(db, q.updateTable('mailings').set({ watched_from }).where('id', '=', mailingId))
}

/**
 * When a test is decided by itself: so many hours after the last message of its part was accepted, and time in which the
 * mailing stood still does not count. Null while some of the part still wait, and where nothing is decided by itself.
 */
export function decisionDue(db: Database, mailing: Mailing, now: number): number | null {
  const { test } = planOf(mailing)
  const [first] = partsOfMailing(db, mailing.id)
  if (!test || test.decides !== 'itself' || !first || first.begun_at === null) return null
  const { waiting, accepted } = countsOfPart(db, mailing.id, first.no)
  if (waiting > 0) return null
  const from = accepted ?? first.begun_at
  return from + test.hours * HOUR + pausedSince(db, mailing.id, from, now)
}

/** What came of a part so far; `waiting`: how many have had no answer at all. */
export function countsOfPart(
  db: Database,
  mailingId: number,
  no: number,
): PartCounts & { waiting: number; latest: number | null; accepted: number | null } {
  return one(
    db,
    q
      .selectFrom('recipients')
      .select([
        sumSql('tried', 'recipients').as('tried'),
        sumSql('bounced', 'recipients').as('bounced'),
        sumSql('complained', 'recipients').as('complained'),
        sumSql('deferred', 'recipients').as('deferred'),
        sumSql('unanswered', 'recipients').as('waiting'),
        sql<number | null>`max(coalesce(accepted_at, first_attempt_at))`.as('latest'),
        sql<number | null>`max(accepted_at)`.as('accepted'),
      ])
      .where('mailing_id', '=', mailingId)
      .where('part', '=', no),
  )!
}

/** Which people a part is for, held out or not, and what differs between them. Who has a part already stays as they are. */
function shareOf(
  db: Database,
  mailing: Mailing,
  { test }: DispatchPlan,
  { kind }: Part,
  zone: string,
  now: number,
): Omit<Share, 'only'> & { only: Expression<SqlBool>[] } {
  const only: Expression<SqlBool>[] = []
  if (kind === 'test' && test && test.share < 1)
    only.push(sql<SqlBool>`slot_of('test', ${mailing.id}, people.id) < ${test.share}`)
  if (kind.startsWith('tier ')) only.push(inTier(kind.slice(5) as Tier, now))
  if (!test) return { only }
  const hours = new Map(variantsOf(db, mailing.id).map(({ no, hour }) => [no, hour]))
  const dueOf = (variant: number) => {
    const hour = hours.get(variant) ?? null
    return hour === null ? now : nextHour(hour, now, zone)
  }
  if (kind !== 'test')
    return {
      only,
      variant: sql<number>`${mailing.winner}`,
      due: sql<number>`${dueOf(mailing.winner ?? 0)}`,
    }
  const variant = sql<number>`cast(slot_of('variant', ${mailing.id}, people.id) * ${test.variants.length} as integer)`
  const due = test.variants.map((_, no) => sql`when ${no} then ${dueOf(no)}`)
  return { only, variant, due: sql<number>`case ${variant} ${sql.join(due, sql` `)} end` }
}

/** As the tiers of `core/standing` are defined, on `people`. */
export function inTier(tier: Tier, now: number): Expression<SqlBool> {
  const [from, next] = [tier, tiers[tiers.indexOf(tier) + 1]].map(
    (one) => one && keennessOf(one, now),
  )
  const keenness = sql<number>`(select facts.keenness from facts where facts.person_id = people.id)`
  const atLeast = (limit: number) => sql<SqlBool>`coalesce(${keenness}, -1e300) >= ${limit}`
  const above = from == null ? sql<SqlBool>`1` : atLeast(from)
  return next == null ? above : sql<SqlBool>`${above} and not ${atLeast(next)}`
}

/** Time zones that people of an account have, with how many; those that are none are left out. */
export function zonesOfPeople(db: Database, field: string): { zone: string; people: number }[] {
  return all(
    db,
    raw(
      sql<{
        zone: string
        people: number
      }>`select ${zoneOf(field)} as zone, count(*) as people from people group by 1 order by 2 desc`,
    ),
  ).filter(({ zone }) => typeof zone === 'string' && isZone(zone))
}

/** Fields in which time zones stand, with how many people have one; only text can. */
export function zoneFields(db: Database): { key: string; name: string; people: number }[] {
  return readFields(db)
    .filter(({ key, kind, name }) => kind !== 'date' && /zone/i.test(`${key} ${name}`))
    .map(({ key, name }) => ({
      key,
      name,
      people: zonesOfPeople(db, key).reduce((sum, { people }) => sum + people, 0),
    }))
    .toSorted((a, b) => b.people - a.people)
}

export const zoneOf = (field: string) => sql<string>`json_extract(people.fields, ${`$.${field}`})`

/** When it is the plan's time somewhere first: the mailing begins then. */
export function firstLocalTime(
  db: Database,
  { zoneField, localAt }: DispatchPlan,
  zone: string,
): number | null {
  if (!zoneField || !localAt) return null
  const zones = [zone, ...zonesOfPeople(db, zoneField).map((one) => one.zone)]
  const times = zones.flatMap((one) => localInputToTime(localAt, one) ?? [])
  return times.length ? Math.min(...times) : null
}

/** Sets for each person of a part when they are due: at the plan's time on their own clock; the account's where it is not known. */
function atLocalTimes(
  db: Database,
  { table, time }: Timed,
  mailingId: number,
  no: number,
  { zoneField, localAt }: DispatchPlan,
  zone: string,
  now: number,
) {
  if (!zoneField || !localAt) return
  const dueIn = (one: string) => Math.max(now, localInputToTime(localAt, one) ?? now)
  const mine = sql`mailing_id = ${mailingId} and part = ${no}`
  run(db, raw(sql`update ${table} set ${time} = ${dueIn(zone)} where ${mine}`))
  for (const { zone: theirs } of zonesOfPeople(db, zoneField))
    run(
      db,
      raw(sql`update ${table} set ${time} = ${dueIn(theirs)}
        where ${mine} and person_id in (select people.id from people where ${zoneOf(zoneField)} = ${theirs})`),
    )
}

/** Sets for each person of a part when they are due: the next time it is the hour at which they read most. */
function atBestHours(
  db: Database,
  { table, time }: Timed,
  mailingId: number,
  no: number,
  zone: string,
  now: number,
) {
  const dues = Array.from({ length: 24 }, (_, hour) => nextHour(hour, now, zone))
  const set = prepared<{ person: number; due: number }>(db, (value) =>
    raw(
      sql`update ${table} set ${time} = ${value('due')} where mailing_id = ${mailingId} and person_id = ${value('person')}`,
    ),
  )
  const part = sql`people where people.id in
    (select person_id from ${table} where mailing_id = ${mailingId} and part = ${no})`
  for (const [person, hour] of bestHours(db, part, zone, now)) set.run({ person, due: dues[hour]! })
}
