import { sql, type SqlBool } from 'kysely'
import { all, q, run, type Database } from '../query'

/** Keeps a report from a mail server for the engine to read. */
export function addReport(db: Database, raw: string, now: number) {
  run(db, q.insertInto('reports').values({ raw, at: now }))
}

export function unreadReports(db: Database, limit: number) {
  return all(
    db,
    q.selectFrom('reports').select(['id', 'raw']).where('read', '=', 0).orderBy('id').limit(limit),
  )
}

/** What came of a report, and whom it is about, where that can be told. */
export function reportRead(db: Database, id: number, outcome: string, personId: number | null) {
  const read = { read: 1, outcome, person_id: personId }
  run(db, q.updateTable('reports').set(read).where('id', '=', id))
}

/** The reports that are about somebody, as they came in. */
export function reportsAbout(db: Database, personId: number) {
  const theirs = q.selectFrom('reports').select(['at', 'outcome', 'raw'])
  return all(db, theirs.where('person_id', '=', personId).orderBy('id'))
}

/** Deletes the reports that are about somebody, or name their address: it may come from before that was noted. */
export function forgetReportsAbout(db: Database, personId: number, address: string) {
  run(
    db,
    q
      .deleteFrom('reports')
      .where((or) =>
        or.or([
          or('person_id', '=', personId),
          sql<SqlBool>`instr(lower(raw), ${address.toLowerCase()}) > 0`,
        ]),
      ),
  )
}
