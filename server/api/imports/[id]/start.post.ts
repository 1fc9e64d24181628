import { transact } from '~~/database'
import { importById, updateImport } from '~~/database/imports'
import { addJob } from '~~/database/jobs'

/** Starts an import whose effect was counted before. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  const id = idOf(event)
  return transact(db, () => {
    const found = importById(db, id)
    if (!found) throw notFound('This import is not on file.')
    if (found.state !== 'counted') throw refused('This import has been started already.')
    const job = addJob(db, 'import', { importId: id }, clock())
    updateImport(db, id, { state: 'waiting', job_id: job })
    return { ok: true }
  })
})
