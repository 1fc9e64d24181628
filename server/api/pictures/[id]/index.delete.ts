import { setPictureRemoved } from '~~/database/letters'

/** Takes a picture out of the library. Letters that show it go on doing so. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  if (!setPictureRemoved(db, idOf(event), clock())) throw notFound('There is no such picture.')
  return { ok: true }
})
