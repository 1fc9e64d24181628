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
    table?: { row: number; firstRow: number }
    repeats?: Import['repeats']
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
      header_row: file.table?.row ?? 1,
      first_row: file.table?.firstRow ?? 2,
      repeats: file.repeats ?? 'last',
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

type Verdict = 'refused' | 'doubtful'

/** Rows about which something is to be said, in the order of the file, behind row `after`. */
export function importNotices(
  db: Database,
  id: number,
  verdict: Verdict,
  { after = 0, limit = 100_000 } = {},
) {
  return all(
    db,
    q
      .selectFrom('import_notices')
      .select(['row', 'reason', 'cells', 'left_out'])
      .where('import_id', '=', id)
      .where('verdict', '=', verdict)
      .where('row', '>', after)
      .orderBy('row')
      .limit(limit),
  )
}

/** How many rows were refused, are doubtful, and of these are left out by hand. */
export function countNotices(db: Database, id: number) {
  const count = (verdict: Verdict, leftOut?: number) => {
    const found = q
      .selectFrom('import_notices')
      .select((eb) => eb.fn.countAll<number>().as('n'))
      .where('import_id', '=', id)
      .where('verdict', '=', verdict)
    return one(db, leftOut === undefined ? found : found.where('left_out', '=', leftOut))!.n
  }
  return {
    refused: count('refused'),
    doubtful: count('doubtful'),
    leftOut: count('doubtful', 1),
  }
}

/** Leaves a doubtful row out of what will be written, or takes it in again; `row` null: all of them. */
export function leaveOut(db: Database, id: number, row: number | null, out: boolean) {
  const doubtful = q
    .updateTable('import_notices')
    .set({ left_out: out ? 1 : 0 })
    .where('import_id', '=', id)
    .where('verdict', '=', 'doubtful')
  run(db, row === null ? doubtful : doubtful.where('row', '=', row))
}

/** The rows that were left out by hand. */
export function rowsLeftOut(db: Database, id: number): Set<number> {
  const rows = q
    .selectFrom('import_notices')
    .select('row')
    .where('import_id', '=', id)
    .where('left_out', '=', 1)
  return new Set(all(db, rows).map(({ row }) => row))
}

/** Forgets what counting said of the rows, but for those left out: writing says it anew. */
export function forgetNotices(db: Database, id: number) {
  run(db, q.deleteFrom('import_notices').where('import_id', '=', id).where('left_out', '=', 0))
}

/** Remembers that an import made a field or a tag, so that it can go with it. */
export function rememberMade(db: Database, id: number, kind: 'field' | 'tag', ref: string) {
  run(
    db,
    q
      .insertInto('import_made')
      .values({ import_id: id, kind, ref })
      .onConflict((c) => c.doNothing()),
  )
}

export function endImport(db: Database, id: number, state: Import['state'], now: number) {
  updateImport(db, id, { state, finished_at: now })
}
