import { all, q, run, type Database } from './query'

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

export function reportRead(db: Database, id: number, outcome: string) {
  run(db, q.updateTable('reports').set({ read: 1, outcome }).where('id', '=', id))
}
