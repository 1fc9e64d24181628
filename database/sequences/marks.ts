import { sql } from 'kysely'
import type { Starting } from '../../core/sequences'
import { all, one, q, raw, run, type Database } from '../query'

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

/** From now on only what newly happens lets somebody in. The places of the starts. */
export function beginMarks(
  db: Database,
  sequenceId: number,
  starts: readonly Starting[],
  now: number,
): number[] {
  run(db, q.deleteFrom('sequence_marks').where('sequence_id', '=', sequenceId))
  for (const [n, start] of starts.entries()) setMark(db, sequenceId, n, endOf(db, start, now))
  return [...starts.keys()]
}

/**
 * The same for a version that takes the place of a running one: a start that stays goes on where it was read last, and who
 * stands at its door stays there; the others begin now. The places of those that begin.
 */
export function carryMarks(
  db: Database,
  sequenceId: number,
  before: readonly Starting[],
  after: readonly Starting[],
  now: number,
): number[] {
  const old = before.map((start, n) => ({
    is: JSON.stringify(start),
    upto: markOf(db, sequenceId, n),
  }))
  const kept = after.map((start) => old.findIndex(({ is }) => is === JSON.stringify(start)))
  beginMarks(db, sequenceId, after, now)
  for (const [n, was] of kept.entries()) if (was >= 0) setMark(db, sequenceId, n, old[was]!.upto)
  const waiting = q.selectFrom('sequence_arrivals').select(['id', 'start'])
  for (const { id, start } of all(db, waiting.where('sequence_id', '=', sequenceId))) {
    const n = start === null ? -1 : kept.indexOf(start)
    run(
      db,
      q
        .updateTable('sequence_arrivals')
        .set({ start: n < 0 ? null : n })
        .where('id', '=', id),
    )
  }
  return kept.flatMap((was, n) => (was < 0 ? [n] : []))
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
    case 'api':
      return 0
    case 'date':
    case 'moment':
      return now
    case 'tag':
    case 'field':
    case 'mailed':
      return newestCue(db)
  }
}

const newest = (db: Database, table: 'evidence' | 'events' | 'orders'): number =>
  one(db, raw(sql<{ id: number }>`select coalesce(max(id), 0) as id from ${sql.table(table)}`))!.id

/** Of cues that are forgotten the number is remembered. */
const newestCue = (db: Database): number =>
  one(
    db,
    raw(
      sql<{
        seq: number
      }>`select coalesce(max(seq), 0) as seq from sqlite_sequence where name = 'cues'`,
    ),
  )!.seq
