import { DAY } from '~~/core/time'
import { transact } from '~~/database'
import { importById, updateImport, UNDO_DAYS } from '~~/database/imports'
import { addJob } from '~~/database/jobs'

/** Undoes an import, within 30 days of its end. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  const id = idOf(event)
  return transact(db, () => {
    const found = importById(db, id)
    if (!found) throw notFound('This import is not on file.')
    if (found.state !== 'done' && found.state !== 'cancelled')
      throw refused('Only an import that has ended can be undone.')
    if (clock() > (found.finished_at ?? 0) + UNDO_DAYS * DAY)
      throw refused(`An import can be undone for ${UNDO_DAYS} days, and they are over.`)
    const job = addJob(db, 'undo-import', { importId: id }, clock())
    updateImport(db, id, { state: 'undoing', job_id: job })
    return { ok: true }
  })
})
