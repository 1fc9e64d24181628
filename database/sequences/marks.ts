import { sql } from 'kysely'
import type { Starting } from '../../core/sequences'
import { one, q, raw, run, type Database } from '../query'

/** Up to where a start of a sequence was read. */
export function markOf(db: Database, sequenceId: number, start: number): number {
  const found = q
    .selectFrom('sequence_marks')
    .select('upto')
    .where('sequence_id', '=', sequenceId)
    .where('start', '=', start)
  return one(db, found)?.upto ?? 0
}

export function setMark(db: Database, sequenceId: number, start: number, upto: number) {
  const values = { sequence_id: sequenceId, start, upto }
  run(
    db,
    q
      .insertInto('sequence_marks')
      .values(values)
      .onConflict((c) => c.columns(['sequence_id', 'start']).doUpdateSet({ upto })),
  )
}

/** From now on only what newly happens lets somebody in. */
export function beginMarks(
  db: Database,
  sequenceId: number,
  starts: readonly Starting[],
  now: number,
) {
  run(db, q.deleteFrom('sequence_marks').where('sequence_id', '=', sequenceId))
  for (const [n, start] of starts.entries()) setMark(db, sequenceId, n, endOf(db, start, now))
}

/** Where the record that a start reads ends now: the id of its last row; of dates, the time. */
function endOf(db: Database, start: Starting, now: number): number {
  switch (start.is) {
    case 'joined':
      return newest(db, 'evidence')
    case 'ordered':
      return newest(db, 'orders')
    case 'event':
    case 'left behind':
      return newest(db, 'events')
    case 'segment':
      return 0
    case 'date':
      return now
  }
}

const newest = (db: Database, table: 'evidence' | 'events' | 'orders'): number =>
  one(db, raw(sql<{ id: number }>`select coalesce(max(id), 0) as id from ${sql.table(table)}`))!.id
