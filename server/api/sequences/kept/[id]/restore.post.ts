import { setKeptDeleted } from '~~/database/sequences'

/** Gives an own template of a sequence back that was taken away. */
export default defineEventHandler((event) => {
  if (!setKeptDeleted(satchel().db, idOf(event), null)) throw notFound('There is no such template.')
  return { ok: true }
})
