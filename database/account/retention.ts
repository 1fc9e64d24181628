import { daysKept } from '../../core/retention'
import { DAY } from '../../core/time'
import { all, q, run, transact, type Database } from '../query'
import { forgetOldCalls, forgetOldSendings } from '../sign-ups'
import { forgetOverSessions } from './sessions'

/** So many rows at once, so that nobody waits for it. */
const AT_ONCE = 1_000

/** The times by which rows are kept: most go by the account's clock, the audit log and sessions by the host's. */
export interface Times {
  now: number
  host: number
}

const before = (key: Parameters<typeof daysKept>[0], now: number) => now - daysKept(key) * DAY

/** Deletes some of what is over; whether there may be more. Which files are, {@link importFilesInUse} tells. */
export function deleteSomeOver(db: Database, { now, host }: Times): boolean {
  return transact(db, () => {
    const oldReports = q
      .selectFrom('reports')
      .select('id')
      .where('at', '<', before('reports', now))
      .orderBy('at')
      .limit(AT_ONCE)
    const reports = run(db, q.deleteFrom('reports').where('id', 'in', oldReports)).changes
    const oldDeeds = q
      .selectFrom('audit')
      .select('id')
      .where('at', '<', before('audit', host))
      .orderBy('id')
      .limit(AT_ONCE)
    const deeds = run(db, q.deleteFrom('audit').where('id', 'in', oldDeeds)).changes
    const changes = deleteOfImports(db, 'import_changes', before('imports', now))
    const notices = deleteOfImports(db, 'import_notices', before('notices', now))
    run(db, q.deleteFrom('api_answers').where('at', '<', before('answers', now)))
    run(
      db,
      q
        .updateTable('jobs')
        .set({ payload: '{}' })
        .where('kind', '=', 'send-copies')
        .where('payload', '!=', '{}')
        .where('finished_at', '<', before('copies', now)),
    )
    run(db, q.deleteFrom('own_requests').where('asked_at', '<', before('requests', host)))
    forgetOverSessions(db, host)
    const sendings = forgetOldSendings(db, before('sign-ups', now), AT_ONCE)
    const calls = forgetOldCalls(db, before('webhooks', now), AT_ONCE)
    const oldHanded = q
      .selectFrom('hand_overs')
      .select('id')
      .where('at', '<', before('hand-overs', now))
      .limit(AT_ONCE)
    const handed = run(db, q.deleteFrom('hand_overs').where('id', 'in', oldHanded)).changes
    return [reports, deeds, changes, notices, sendings, calls, handed].some(
      (many) => many >= AT_ONCE,
    )
  })
}

/** Rows of imports that ended before a time. */
function deleteOfImports(
  db: Database,
  table: 'import_changes' | 'import_notices',
  ended: number,
): number {
  const over = all(db, q.selectFrom('imports').select('id').where('finished_at', '<', ended))
  let deleted = 0
  for (const { id } of over) {
    if (deleted >= AT_ONCE) break
    deleted += run(db, q.deleteFrom(table).where('import_id', '=', id)).changes
  }
  return deleted
}

/** The files of imports that are not over yet, by their paths. */
export function importFilesInUse(db: Database, now: number): Set<string> {
  const rows = all(
    db,
    q
      .selectFrom('imports')
      .select('path')
      .where((eb) => eb(eb.fn.coalesce('finished_at', 'created_at'), '>=', before('imports', now))),
  )
  return new Set(rows.map(({ path }) => path))
}
