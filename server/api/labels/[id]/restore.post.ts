import { setLabelDeleted } from '~~/database/labels'

/** Restores a label that was deleted, on all it was on. */
export default defineEventHandler((event) => {
  const done = setLabelDeleted(satchel().db, idOf(event), null)
  if (done === 'taken')
    throw refused('There is another label with this name now. Rename that one first.')
  if (done === 'gone') throw notFound('There is no such label to restore.')
  return { ok: true }
})
