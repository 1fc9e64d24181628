import { archiveSequence } from '~~/database/sequences'
import { archivedInput } from '~~/shared/mailing-inputs'

/** Puts a sequence that does not run away, or back among the others. */
export default defineEventHandler(async (event) => {
  const { archived } = await readInput(event, archivedInput)
  const { db, clock } = satchel()
  const { id } = sequenceOf(event)
  if (!archiveSequence(db, id, archived ? clock() : null))
    throw refused('It runs, or is paused: end it first.')
  return { ok: true }
})
