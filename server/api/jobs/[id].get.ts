import { jobById } from '~~/database/jobs'

/** How far a job of the engine has come. */
export default defineEventHandler((event) => {
  const job = jobById(satchel().db, idOf(event))
  if (!job) throw notFound('This work is not on file.')
  const { id, state, done, total, error } = job
  return { id, state, done, total, error }
})
