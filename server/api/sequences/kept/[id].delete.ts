import { setKeptDeleted } from '~~/database/sequences'

/** Takes an own template of a sequence away. What was begun from it stays. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  if (!setKeptDeleted(db, idOf(event), clock())) throw notFound('There is no such template.')
  return { ok: true }
})
