import { deleteNote } from '~~/database/people'

export default defineEventHandler((event) => {
  if (!deleteNote(satchel().db, idOf(event), idOf(event, 'note')))
    throw notFound('This note is gone already.')
  return { ok: true }
})
