import { transact } from '~~/database'
import { importById, updateImport } from '~~/database/imports'
import { addJob } from '~~/database/jobs'
import { startImportInput } from '~~/shared/people-inputs'

/** Starts an import whose effect was counted before. */
export default defineEventHandler(async (event) => {
  const { db, clock } = satchel()
  const { startSequences } = await readInput(event, startImportInput)
  const id = idOf(event)
  return transact(db, () => {
    const found = importById(db, id)
    if (!found) throw notFound('This import is not on file.')
    if (found.state !== 'counted') throw refused('This import has been started already.')
    const job = addJob(db, 'import', { importId: id }, clock())
    updateImport(db, id, {
      state: 'waiting',
      job_id: job,
      starts_sequences: startSequences ? 1 : 0,
    })
    return { ok: true }
  })
})
