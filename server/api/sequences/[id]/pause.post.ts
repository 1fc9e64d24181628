import { pauseSequence } from '~~/database/sequences'

/** Stops a sequence for a while: nobody comes in, nobody goes on, nothing goes out. */
export default defineEventHandler((event) => {
  const { id } = sequenceOf(event)
  if (!pauseSequence(satchel().db, id)) throw refused('It does not run just now.')
  return { ok: true }
})
