import { setStampDeleted } from '~~/database/letters'

/** Takes a stamp away. Letters keep what stands in them, and follow it no more. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  if (!setStampDeleted(db, idOf(event), clock())) throw notFound('There is no such stamp.')
  return { ok: true }
})
