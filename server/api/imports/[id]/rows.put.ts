import { transact } from '~~/database'
import { countNotices, importById, leaveOut } from '~~/database/imports'
import { leaveOutInput } from '~~/shared/people-inputs'

/** Leaves doubtful rows out of what will be written, or takes them in again. */
export default defineEventHandler(async (event) => {
  const { db } = satchel()
  const id = idOf(event)
  const { row, out } = await readInput(event, leaveOutInput)
  return transact(db, () => {
    const found = importById(db, id)
    if (!found) throw notFound('This import is not on file.')
    if (found.state !== 'counted') throw refused('This import has been started already.')
    leaveOut(db, id, row, out)
    return countNotices(db, id)
  })
})
