import { sql, type SqlBool } from 'kysely'
import type { Rule } from '../../core/segments'
import { all, one, raw, run, transact, type Database } from '../query'
import { membersOf } from '../segments'
import { letInSoon } from './arriving'
import type { Sequence } from './sequences'

/** Of a segment, those on a sequence's list and not suppressed; of them, those who were never inside. */
export function couldComeIn(db: Database, sequence: Sequence, rule: Rule, now: number) {
  const may = mayOf(db, sequence, rule, now)
  return one(
    db,
    raw(sql<{ people: number; fresh: number }>`
      select count(*) as people, coalesce(sum(not exists (
          select 1 from enrolments as n where n.sequence_id = ${sequence.id} and n.person_id = facts.person_id)), 0) as fresh
      from facts where ${may}`),
  )!
}

/** Lets a segment into a sequence: how many are to come in. Its rule, and how often they may, is asked of each of them. */
export function letSegmentIn(
  db: Database,
  sequence: Sequence,
  rule: Rule,
  now: number,
  start: number | null = null,
): number {
  return transact(
    db,
    () =>
      run(
        db,
        raw(sql`insert into sequence_arrivals (sequence_id, start, person_id, at)
          select ${sequence.id}, ${start}, facts.person_id, ${now} from facts where ${mayOf(db, sequence, rule, now)}`),
      ).changes,
  )
}

/**
 * Lets some people into a sequence by hand: those who are on their way in now. Left out are those who may not be mailed
 * on its behalf, are inside, or wait to be let in already; its rule is asked of each when they come in.
 */
export function letPeopleIn(
  db: Database,
  sequence: Sequence,
  people: readonly number[],
  now: number,
): number[] {
  const everybody: Rule = { kind: 'all', of: [] }
  return transact(db, () => {
    const coming = all(
      db,
      raw(sql<{ person_id: number }>`
        select facts.person_id from facts
        where facts.person_id in (select value from json_each(${JSON.stringify(people)})) and ${mayOf(db, sequence, everybody, now)}
          and not exists (select 1 from enrolments as n
            where n.sequence_id = ${sequence.id} and n.person_id = facts.person_id and n.state = 'inside')
          and not exists (select 1 from sequence_arrivals as a
            where a.sequence_id = ${sequence.id} and a.person_id = facts.person_id)
        order by facts.person_id`),
    ).map(({ person_id }) => person_id)
    letInSoon(db, sequence.id, null, coming, now)
    return coming
  })
}

const mayOf = (db: Database, { list_id }: Sequence, rule: Rule, now: number) => sql<SqlBool>`
  exists (select 1 from subscriptions as s where s.person_id = facts.person_id and s.list_id = ${list_id} and s.state = 'subscribed')
  and not exists (select 1 from set_aside as a where a.person_id = facts.person_id)
  and ${membersOf(db, rule, now)}`
