import { setStampDeleted } from '~~/database/letters'

/** Gives a stamp back that was taken away. */
export default defineEventHandler((event) => {
  if (!setStampDeleted(satchel().db, idOf(event), null)) throw notFound('There is no such stamp.')
  return { ok: true }
})
