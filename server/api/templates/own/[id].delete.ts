import { setTemplateDeleted } from '~~/database/letters'

/** Takes an own template away. Letters made from it stay. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  if (!setTemplateDeleted(db, idOf(event), clock())) throw notFound('There is no such template.')
  return { ok: true }
})
