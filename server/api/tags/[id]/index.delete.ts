import { deleteTag } from '~~/database/people'

export default defineEventHandler((event) => {
  if (!deleteTag(satchel().db, idOf(event))) throw notFound('This tag is not on file.')
  return { ok: true }
})
