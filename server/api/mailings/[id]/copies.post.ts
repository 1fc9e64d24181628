import { addJob } from '~~/database/jobs'
import { copiesInput } from '~~/shared/mailing-inputs'

/** Has copies of the letter sent, as the person in the query reads it; the job that does so. */
export default defineEventHandler(async (event) => {
  const { to } = await readInput(event, copiesInput)
  const { db, clock, sends } = satchel()
  if (!sends) throw refused('No mail server is set, so nothing goes out.')
  const { merged } = await readingOf(event)
  return { job: addJob(db, 'send-copies', { to, ...merged }, clock()) }
})
