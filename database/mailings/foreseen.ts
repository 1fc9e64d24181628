import { sql, type Expression, type SqlBool } from 'kysely'
import { partsOf, type DispatchPlan, type PartKind } from '../../core/dispatch'
import type { Tier } from '../../core/standing'
import { HOUR, isZone, localInputToTime, MINUTE, nextHour } from '../../core/time'
import { readAccount } from '../account'
import { each, raw, type Database } from '../query'
import { eligible } from '../segments'
import { bestHours } from './best-hours'
import { audienceOf, type Mailing } from './mailings'
import { decisionDue, inTier, partsOfMailing, planOf, zoneOf } from './parts'

/**
 * Everybody who is still to be planned for a mailing, and when they would get it as things stand: by tiers, a test and what
 * follows it, hours and clocks of their own. Not those who wait already. A pace is not reckoned with.
 */
export function eachForeseen(
  db: Database,
  mailing: Mailing,
  now: number,
  take: (person: number, at: number) => void,
) {
  const audience = audienceOf(db, mailing)
  if (!audience) return
  const plan = planOf(mailing)
  const zone = readAccount(db)!.zone
  const isFirst = plan.pace === 'widening' ? onlyOnce() : () => true
  for (const { kind, at } of partsToCome(db, mailing, plan, now)) {
    const who = sql.join(
      [eligible(db, audience, now), ...partly(mailing, plan, kind, at)].map((one) => sql`(${one})`),
      sql` and `,
    )
    if (plan.pace === 'best-hour' && kind !== 'test') {
      for (const [person, hour] of bestHours(db, sql`people where ${who}`, zone, at))
        take(person, nextHour(hour, at, zone))
      continue
    }
    const dueOf = dueBy(plan, mailing, kind, at, zone)
    const rows = raw(
      sql<{ person: number; variant: number; zone: string | null }>`
        select people.id as person, ${variantOf(plan, mailing)} as variant,
          ${plan.zoneField ? zoneOf(plan.zoneField) : sql`null`} as zone
        from people where ${who}`,
    )
    for (const { person, variant, zone: own } of each(db, rows))
      if (isFirst(person)) take(person, dueOf(variant, own))
  }
}

/** Who reads less and less comes into a later tier after an earlier one has gone out to them. */
function onlyOnce() {
  const had = new Set<number>()
  return (person: number) => had.size < had.add(person).size
}

/** The condition on `people` that holds for everybody who got a mailing or would, as things stand. */
export function getsIt(db: Database, mailing: Mailing, now: number): Expression<SqlBool> {
  const audience = audienceOf(db, mailing)
  const plan = planOf(mailing)
  const parts = audience
    ? partsToCome(db, mailing, plan, now).map(
        ({ kind, at }) => sql`(${sql.join(partly(mailing, plan, kind, at), sql` and `)})`,
      )
    : []
  const coming =
    parts.length > 0
      ? sql<SqlBool>`((${eligible(db, audience!, now)}) and (${sql.join(parts, sql` or `)}))`
      : sql<SqlBool>`0`
  if (mailing.started_at === null) return coming
  return sql<SqlBool>`(${coming} or exists (
    select 1 from recipients as r where r.mailing_id = ${mailing.id} and r.person_id = people.id
      and (r.accepted_at is not null or r.state in ('queued', 'claimed', 'deferred', 'uncertain'))))`
}

/** The parts that have not begun, and when they are to: each so long after the one before it as that is watched. */
function partsToCome(
  db: Database,
  mailing: Mailing,
  plan: DispatchPlan,
  now: number,
): { kind: PartKind; at: number }[] {
  const after = (kind: PartKind) =>
    kind === 'test'
      ? (plan.test?.hours ?? 0) * HOUR
      : kind.startsWith('tier ')
        ? plan.watchMinutes * MINUTE
        : 0
  const found: { kind: PartKind; at: number }[] = []
  if (mailing.started_at === null) {
    // What is held before it has begun stands on the day it was to begin.
    let at = mailing.scheduled_at ?? now
    if (mailing.state !== 'held') at = Math.max(at, now)
    for (const kind of partsOf(plan)) {
      found.push({ kind, at })
      at += after(kind)
    }
    return found
  }
  const parts = partsOfMailing(db, mailing.id)
  const last = parts.findLast(({ begun_at }) => begun_at !== null)
  let at = last ? last.begun_at! + after(last.kind) : now
  if (last?.kind === 'test') at = decisionDue(db, mailing, now) ?? at
  at = Math.max(at, now)
  for (const { kind, begun_at } of parts) {
    if (begun_at !== null) continue
    found.push({ kind, at })
    at += after(kind)
  }
  return found
}

/** Which of the audience are in a part. */
function partly(
  mailing: Mailing,
  { test, holdout }: DispatchPlan,
  kind: PartKind,
  at: number,
): Expression<SqlBool>[] {
  const conditions: Expression<SqlBool>[] = [sql<SqlBool>`1`]
  const slot = (use: string) => sql`slot_of(${use}, ${mailing.id}, people.id)`
  if (holdout > 0) conditions.push(sql<SqlBool>`${slot('holdout')} >= ${holdout}`)
  if (kind === 'test' && test) conditions.push(sql<SqlBool>`${slot('test')} < ${test.share}`)
  if (kind.startsWith('tier ')) conditions.push(inTier(kind.slice(5) as Tier, at))
  if (mailing.started_at !== null)
    conditions.push(
      sql<SqlBool>`not exists (select 1 from recipients as r where r.mailing_id = ${mailing.id} and r.person_id = people.id)`,
    )
  else if (kind !== 'test' && test) conditions.push(sql<SqlBool>`${slot('test')} >= ${test.share}`)
  return conditions
}

function variantOf({ test }: DispatchPlan, mailing: Mailing) {
  return test
    ? sql<number>`cast(slot_of('variant', ${mailing.id}, people.id) * ${test.variants.length} as integer)`
    : sql<number>`0`
}

/** When somebody of a part gets it: on their own clock, at their variant's hour, or as the part begins. */
function dueBy(
  { pace, localAt, test }: DispatchPlan,
  { winner }: Mailing,
  kind: PartKind,
  at: number,
  zone: string,
): (variant: number, own: string | null) => number {
  if (pace === 'local-time' && localAt) {
    const known = new Map<string, number>()
    return (_, own) => {
      const theirs = own && isZone(own) ? own : zone
      let due = known.get(theirs)
      if (due === undefined) {
        due = Math.max(at, localInputToTime(localAt, theirs) ?? at)
        known.set(theirs, due)
      }
      return due
    }
  }
  if (test?.of !== 'hour') return () => at
  const dues = test.variants.map(({ hour }) => (hour === null ? at : nextHour(hour, at, zone)))
  return (variant) => dues[kind === 'test' ? variant : (winner ?? 0)] ?? at
}
