import { basename } from 'node:path'
import type { ColumnPlan } from '~~/core/people'
import { countNotices, importById, UNDO_DAYS } from '~~/database/imports'
import { jobById } from '~~/database/jobs'
import { DAY } from '~~/core/time'
import { listById } from '~~/database/people'

/** An import: how far it has come, and its report. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  const found = importById(db, idOf(event))
  if (!found) throw notFound('This import is not on file.')
  const job = found.job_id === null ? undefined : jobById(db, found.job_id)
  const { path, plans, preview, undone, ...rest } = found
  return {
    ...rest,
    list: found.list_id === null ? null : (listById(db, found.list_id)?.name ?? null),
    // The file as it was sent, and how it was taken, for the way back to its columns.
    file: basename(path),
    plans: JSON.parse(plans) as ColumnPlan[],
    columns: (JSON.parse(plans) as ColumnPlan[]).map(({ header, target }) => ({ header, target })),
    preview: preview === null ? null : (JSON.parse(preview) as object),
    undone: undone === null ? null : (JSON.parse(undone) as object),
    undoUntil: found.state === 'done' ? (found.finished_at ?? 0) + UNDO_DAYS * DAY : null,
    now: clock(),
    progress: job ? { done: job.done, total: job.total, error: job.error } : null,
    noticed: countNotices(db, found.id),
  }
})
