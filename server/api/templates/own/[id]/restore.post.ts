import { setTemplateDeleted } from '~~/database/letters'

/** Gives an own template back that was taken away. */
export default defineEventHandler((event) => {
  if (!setTemplateDeleted(satchel().db, idOf(event), null))
    throw notFound('There is no such template.')
  return { ok: true }
})
