import { deleteSequence } from '~~/database/sequences'

/** Deletes a sequence that never ran, with its letters. */
export default defineEventHandler((event) => {
  const { id } = sequenceOf(event)
  if (!deleteSequence(satchel().db, id))
    throw refused('It has run, so what came of it stays. End it instead.')
  return { ok: true }
})
