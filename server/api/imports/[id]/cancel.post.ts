import { importById } from '~~/database/imports'
import { cancelJob } from '~~/database/jobs'

export default defineEventHandler((event) => {
  const { db } = satchel()
  const found = importById(db, idOf(event))
  if (!found) throw notFound('This import is not on file.')
  if (found.job_id !== null) cancelJob(db, found.job_id)
  return { ok: true }
})
