import { setLabelDeleted } from '~~/database/labels'

/** Deletes a label; what it was on stays, and it can be restored. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  if (setLabelDeleted(db, idOf(event), clock()) !== 'changed')
    throw notFound('This label is not there any more.')
  return { ok: true }
})
