import { sql, type SqlBool } from 'kysely'
import type { Rule } from '../../core/segments'
import { one, q, raw, run, rowsInserter, transact, type Database } from '../query'
import { membersOf } from '../segments'
import { runningSequences, type Sequence } from './sequences'

/** Lets people in as soon as the engine comes to it, as far as they may; `start` null: by hand. */
export function letInSoon(
  db: Database,
  sequenceId: number,
  start: number | null,
  people: readonly number[],
  now: number,
) {
  const insert = rowsInserter(db, 'sequence_arrivals', ['sequence_id', 'start', 'person_id', 'at'])
  transact(db, () => insert(people.map((person) => [sequenceId, start, person, now])))
}

/** Who came into a segment, or left it, comes into the running sequences that begin so. In its caller's transaction. */
export function arrivedBySegment(
  db: Database,
  segmentId: number,
  moved: { came: readonly number[]; went: readonly number[] },
  now: number,
) {
  for (const { id, map } of runningSequences(db))
    for (const [n, start] of map.start.by.entries())
      if (start.is === 'segment' && start.segmentId === segmentId)
        letInSoon(db, id, n, start.comes ? moved.came : moved.went, now)
}

/** How many wait to be let in. */
export function arrivalsOf(db: Database, sequenceId: number): number {
  const waiting = q
    .selectFrom('sequence_arrivals')
    .select((eb) => eb.fn.countAll<number>().as('n'))
    .where('sequence_id', '=', sequenceId)
  return one(db, waiting)!.n
}

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
export function letSegmentIn(db: Database, sequence: Sequence, rule: Rule, now: number): number {
  return transact(
    db,
    () =>
      run(
        db,
        raw(sql`insert into sequence_arrivals (sequence_id, start, person_id, at)
          select ${sequence.id}, null, facts.person_id, ${now} from facts where ${mayOf(db, sequence, rule, now)}`),
      ).changes,
  )
}

const mayOf = (db: Database, { list_id }: Sequence, rule: Rule, now: number) => sql<SqlBool>`
  exists (select 1 from subscriptions as s where s.person_id = facts.person_id and s.list_id = ${list_id} and s.state = 'subscribed')
  and not exists (select 1 from set_aside as a where a.person_id = facts.person_id)
  and ${membersOf(db, rule, now)}`
