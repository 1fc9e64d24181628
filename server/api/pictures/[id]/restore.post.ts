import { setPictureRemoved } from '~~/database/letters'

/** Gives a picture back that was taken away. */
export default defineEventHandler((event) => {
  if (!setPictureRemoved(satchel().db, idOf(event), null))
    throw notFound('There is no such picture.')
  return { ok: true }
})
