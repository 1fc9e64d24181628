import { pauseSequence } from '~~/database/sequences'

/** Stops a sequence for a while: nobody comes in, nobody goes on, nothing goes out. */
export default defineEventHandler((event) => {
  const { id } = sequenceOf(event)
  const { db, clock } = satchel()
  if (!pauseSequence(db, id, clock())) throw refused('It does not run just now.')
  return { ok: true }
})
