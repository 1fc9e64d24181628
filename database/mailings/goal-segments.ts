import { isCountedSql } from '../../core/counting'
import { sql, type SqlBool } from 'kysely'
import type { Goal } from '../../core/dispatch'
import type { Rule } from '../../core/segments'
import { DAY } from '../../core/time'
import type { Mailing } from './mailings'
import { planOf } from './parts'
import { all, q, raw, run, transact, type Database } from '../query'
import { isMember } from '../segments'

/** The segment a goal is about; null where it is about something else. */
export function goalSegment(goal: Goal | null): Rule | null {
  return goal && (goal.is === 'enters' || goal.is === 'leaves')
    ? { kind: 'segment', segmentId: Number(goal.what) }
    : null
}

/** Notes who of a mailing's people, mailed or held out, is in the goal's segment when it begins for them. */
export function noteGoalStarts(db: Database, mailing: Mailing, part: number, now: number) {
  const rule = goalSegment(planOf(mailing).goal)
  if (!rule) return
  run(
    db,
    raw(sql`
      insert or ignore into goal_starts (mailing_id, person_id)
      select ${mailing.id}, people.id from people
      where people.id in (
          select person_id from recipients where mailing_id = ${mailing.id} and coalesce(part, 0) = ${part}
          union select person_id from holdouts where mailing_id = ${mailing.id} and part = ${part})
        and ${isMember(db, rule, now)}`),
  )
}

/** Mailings whose goal is a segment and whose window is still open for somebody. */
export function goalsToWatch(db: Database, now: number): Mailing[] {
  return all(
    db,
    q
      .selectFrom('mailings')
      .selectAll()
      .where('started_at', 'is not', null)
      .where(sql<SqlBool>`plan like '%"is":"enters"%' or plan like '%"is":"leaves"%'`),
  ).filter((mailing) => {
    const { goal } = planOf(mailing)
    return (
      goalSegment(goal) !== null &&
      (mailing.finished_at === null || now <= mailing.finished_at + (goal!.days + 1) * DAY)
    )
  })
}

/** Notes who has newly come into the goal's segment, or left it, within the goal's days; how many. */
export function noteGoalHits(db: Database, mailing: Mailing, now: number): number {
  const { goal } = planOf(mailing)
  const rule = goalSegment(goal)
  if (!goal || !rule) return 0
  const inNow = isMember(db, rule, now)
  const wasIn = sql<SqlBool>`exists (select 1 from goal_starts as s where s.mailing_id = ${mailing.id} and s.person_id = people.id)`
  const moved =
    goal.is === 'enters' ? sql`${inNow} and not ${wasIn}` : sql`${wasIn} and not ${inNow}`
  const since = now - goal.days * DAY
  return transact(
    db,
    () =>
      run(
        db,
        raw(sql`
          insert or ignore into goal_hits (mailing_id, person_id, at)
          select ${mailing.id}, people.id, ${now} from people
          where people.id in (
              select person_id from recipients as r
              where mailing_id = ${mailing.id} and ${isCountedSql('delivered')} and accepted_at >= ${since}
              union select person_id from holdouts
              where mailing_id = ${mailing.id} and part is not null and at >= ${since} and at <= ${now})
            and ${moved}`),
      ).changes,
  )
}
