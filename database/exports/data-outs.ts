import { randomBytes } from 'node:crypto'
import type { Selectable } from 'kysely'
import type { DataChoice, DataEvery, DataKind } from '../../core/results'
import { addJob } from '../jobs'
import { all, one, q, run, transact, type Database } from '../query'
import type { Schema } from '../schema'

export type DataCounts = Partial<Record<DataKind, number>>
type Row = Selectable<Schema['data_outs']>

/** Asks the engine to take data out; the number of what it will make. */
export function addDataOut(
  db: Database,
  choice: DataChoice,
  now: number,
  from: { scheduleId: number; mailTo: string | null } | null = null,
): number {
  return transact(db, () => {
    const { id } = run(
      db,
      q.insertInto('data_outs').values({
        key: randomBytes(24).toString('hex'),
        choice: JSON.stringify(choice),
        schedule_id: from?.scheduleId ?? null,
        mail_to: from?.mailTo ?? null,
        created_at: now,
      }),
    )
    const job = addJob(db, 'data-out', { dataOutId: id }, now)
    run(db, q.updateTable('data_outs').set({ job_id: job }).where('id', '=', id))
    return id
  })
}

export const choiceOf = ({ choice }: { choice: string }) => JSON.parse(choice) as DataChoice

export function dataOutById(db: Database, id: number): Row | undefined {
  return one(db, q.selectFrom('data_outs').selectAll().where('id', '=', id))
}

export function dataOutByKey(db: Database, key: string): Row | undefined {
  return one(db, q.selectFrom('data_outs').selectAll().where('key', '=', key))
}

/** Everything that was taken out, the latest first, with how far the work has come. */
export function listDataOuts(db: Database) {
  return all(
    db,
    q
      .selectFrom('data_outs as d')
      .leftJoin('jobs as j', 'j.id', 'd.job_id')
      .select(['d.id', 'd.choice', 'd.schedule_id', 'd.mail_to', 'd.counts', 'd.size'])
      .select(['d.created_at', 'd.made_at', 'j.state', 'j.done', 'j.total', 'j.error'])
      .orderBy('d.id', 'desc')
      .limit(50),
  )
}

/** Writes what was made. */
export function dataOutMade(
  db: Database,
  id: number,
  counts: DataCounts,
  size: number,
  now: number,
) {
  const made = { counts: JSON.stringify(counts), size, made_at: now }
  run(db, q.updateTable('data_outs').set(made).where('id', '=', id))
}

export function removeDataOut(db: Database, id: number): boolean {
  return run(db, q.deleteFrom('data_outs').where('id', '=', id)).changes === 1
}

export function dataOutsBefore(db: Database, before: number): number[] {
  const old = q.selectFrom('data_outs').select('id').where('created_at', '<', before)
  return all(db, old).map(({ id }) => id)
}

export function addDataSchedule(
  db: Database,
  schedule: { choice: DataChoice; every: DataEvery; mailTo: string | null; nextAt: number },
  now: number,
): number {
  const { choice, every, mailTo, nextAt } = schedule
  return run(
    db,
    q.insertInto('data_schedules').values({
      choice: JSON.stringify(choice),
      every,
      mail_to: mailTo,
      next_at: nextAt,
      created_at: now,
    }),
  ).id
}

export function listDataSchedules(db: Database) {
  return all(db, q.selectFrom('data_schedules').selectAll().orderBy('id'))
}

export function removeDataSchedule(db: Database, id: number): boolean {
  return run(db, q.deleteFrom('data_schedules').where('id', '=', id)).changes === 1
}

/** Begins what a schedule has due and sets its next time, both or neither. Whether this call did it. */
export function runDataSchedule(
  db: Database,
  schedule: Selectable<Schema['data_schedules']>,
  nextAt: number,
  now: number,
): boolean {
  return transact(db, () => {
    const { changes } = run(
      db,
      q
        .updateTable('data_schedules')
        .set({ next_at: nextAt })
        .where('id', '=', schedule.id)
        .where('next_at', '=', schedule.next_at),
    )
    if (changes === 0) return false
    const from = { scheduleId: schedule.id, mailTo: schedule.mail_to }
    addDataOut(db, choiceOf(schedule), now, from)
    return true
  })
}
