import { sql } from 'kysely'
import type { PeopleChoice } from '../people'
import { raw, run, type Database } from '../query'
import { membersOf } from './segments'

/** Which people a table shows; it may be those of a saved segment. */
export interface TableChoice extends Omit<PeopleChoice, 'among'> {
  segmentId?: number | undefined
}

/** The same for a query that is made once: the segment is asked for as a part of it. */
export function choiceOnce(
  db: Database,
  { segmentId, ...choice }: TableChoice,
  now: number,
): PeopleChoice {
  if (segmentId === undefined) return choice
  const members = membersOf(db, { kind: 'segment', segmentId }, now)
  return { ...choice, among: sql`select facts.person_id from facts where ${members}` }
}

/** What the temporary table of members holds on each connection: which segment, and since when. */
const gathered = new WeakMap<Database, { segmentId: number; at: number }>()

/** So long the pages of a table are of the same members, ms. */
const KEPT = 300_000

/**
 * The same for a table that is read page by page: the members of the segment are gathered once, and read from a temporary
 * table from then on. The first page gathers them anew.
 */
export function choiceKept(
  db: Database,
  { segmentId, ...choice }: TableChoice,
  now: number,
  isFirst: boolean,
): PeopleChoice {
  if (segmentId === undefined) return choice
  const has = gathered.get(db)
  if (isFirst || has?.segmentId !== segmentId || now - has.at > KEPT || now < has.at) {
    db.sqlite.exec(
      'drop table if exists temp.gathered; create temp table gathered (person_id integer primary key)',
    )
    const members = membersOf(db, { kind: 'segment', segmentId }, now)
    run(db, raw(sql`insert into temp.gathered select facts.person_id from facts where ${members}`))
    gathered.set(db, { segmentId, at: now })
  }
  return { ...choice, among: sql`select person_id from temp.gathered` }
}
