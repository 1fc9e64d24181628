import { sql, type Selectable, type SqlBool } from 'kysely'
import { one, q, run, type Database } from '../query'
import type { Schema } from '../schema'

export type Job = Selectable<Schema['jobs']>

/** Asks the engine for long work; the job's id. */
export function addJob(
  db: Database,
  kind: Schema['jobs']['kind'],
  payload: object,
  now: number,
): number {
  return run(
    db,
    q
      .insertInto('jobs')
      .values({ kind, payload: JSON.stringify(payload), state: 'waiting', created_at: now }),
  ).id
}

export function jobById(db: Database, id: number): Job | undefined {
  return one(db, q.selectFrom('jobs').selectAll().where('id', '=', id))
}

/** Whether a job of a kind waits or is under way. */
export function jobIsOpen(db: Database, kind: Job['kind']): boolean {
  const open = q
    .selectFrom('jobs')
    .select('id')
    .where('kind', '=', kind)
    .where('state', 'in', ['waiting', 'running'])
  return one(db, open) !== undefined
}

/**
 * Takes a job that waits, or one whose engine no longer runs, for `engine`: compare-and-set.
 * `total` and `done` are kept, so that work begun by another engine goes on where it was.
 */
export function takeJob(
  db: Database,
  engine: string,
  liveEngines: readonly string[],
): Job | undefined {
  return one(
    db,
    q
      .updateTable('jobs')
      .set({ state: 'running', engine })
      .where('id', '=', (eb) =>
        eb
          .selectFrom('jobs')
          .select('id')
          .where((or) =>
            or.or([
              or('state', '=', 'waiting'),
              or.and([or('state', '=', 'running'), or('engine', 'not in', ['', ...liveEngines])]),
            ]),
          )
          .orderBy('id')
          .limit(1),
      )
      .returningAll(),
  )
}

/** Writes how far a job has come; whether the user has asked to cancel it. */
export function jobProgress(
  db: Database,
  id: number,
  done: number,
  total: number,
): { cancel: boolean } {
  run(db, q.updateTable('jobs').set({ done, total }).where('id', '=', id))
  return {
    cancel: one(db, q.selectFrom('jobs').select('cancel').where('id', '=', id))?.cancel === 1,
  }
}

/** Jobs of a process that ended at them wait again, and how often that was is counted. */
export function jobsDied(db: Database, engine: string): void {
  run(
    db,
    q
      .updateTable('jobs')
      .set((eb) => ({ state: 'waiting' as const, deaths: eb('deaths', '+', 1) }))
      .where('state', '=', 'running')
      .where('engine', '=', engine),
  )
}

export function finishJob(
  db: Database,
  id: number,
  state: 'done' | 'failed' | 'cancelled',
  error: string | null,
  now: number,
) {
  run(db, q.updateTable('jobs').set({ state, error, finished_at: now }).where('id', '=', id))
}

export function cancelJob(db: Database, id: number) {
  run(
    db,
    q
      .updateTable('jobs')
      .set({ cancel: 1 })
      .where('id', '=', id)
      .where('state', 'in', ['waiting', 'running']),
  )
}

/** Empties what was asked for copies of letters that name an address: they may show what its owner gets. */
export function forgetCopiesNaming(db: Database, address: string) {
  run(
    db,
    q
      .updateTable('jobs')
      .set({ payload: '{}' })
      .where('kind', '=', 'send-copies')
      .where('state', 'in', ['done', 'failed', 'cancelled'])
      .where(sql<SqlBool>`instr(lower(payload), ${address.toLowerCase()}) > 0`),
  )
}

/** Forgets what a job was about, once it is done. */
export function forgetPayload(db: Database, id: number) {
  run(db, q.updateTable('jobs').set({ payload: '{}' }).where('id', '=', id))
}
