import type { Selectable } from 'kysely'
import type { ColumnPlan } from '../../core/people'
import { all, one, q, run, type Database } from '../query'
import type { Schema } from '../schema'

export type Import = Selectable<Schema['imports']>

export function createImport(
  db: Database,
  file: {
    name: string
    path: string
    size: number
    encoding: string
    delimiter: string
    plans: ColumnPlan[]
    listId: number | null
    statement: string
    mode?: Import['mode']
    clearEmpty?: boolean
    tag?: string | null
    state?: 'waiting' | 'counting'
  },
  now: number,
): number {
  return run(
    db,
    q.insertInto('imports').values({
      file_name: file.name,
      path: file.path,
      size: file.size,
      encoding: file.encoding,
      delimiter: file.delimiter,
      plans: JSON.stringify(file.plans),
      list_id: file.listId,
      statement: file.statement,
      mode: file.mode ?? 'both',
      clear_empty: file.clearEmpty ? 1 : 0,
      tag: file.tag ?? null,
      state: file.state ?? 'waiting',
      created_at: now,
    }),
  ).id
}

export function importById(db: Database, id: number): Import | undefined {
  return one(db, q.selectFrom('imports').selectAll().where('id', '=', id))
}

export function recentImports(db: Database, limit: number) {
  return all(
    db,
    q
      .selectFrom('imports')
      .select(['id', 'file_name', 'state', 'rows', 'added', 'changed', 'refused', 'created_at'])
      .orderBy('id', 'desc')
      .limit(limit),
  )
}

export function updateImport(
  db: Database,
  id: number,
  change: Partial<
    Pick<Import, 'state' | 'job_id' | 'finished_at' | 'preview' | 'undone' | 'starts_sequences'>
  >,
) {
  run(db, q.updateTable('imports').set(change).where('id', '=', id))
}

/** Rows about which something is to be said, in the order of the file. */
export function importNotices(
  db: Database,
  id: number,
  verdict: 'refused' | 'doubtful',
  limit = 100_000,
) {
  return all(
    db,
    q
      .selectFrom('import_notices')
      .select(['row', 'reason', 'cells'])
      .where('import_id', '=', id)
      .where('verdict', '=', verdict)
      .orderBy('row')
      .limit(limit),
  )
}

export function endImport(db: Database, id: number, state: Import['state'], now: number) {
  updateImport(db, id, { state, finished_at: now })
}
