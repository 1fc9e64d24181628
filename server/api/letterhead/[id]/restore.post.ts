import { setLetterheadDeleted } from '~~/database/letters'

/** Gives a letterhead back that was taken away. */
export default defineEventHandler((event) => {
  if (!setLetterheadDeleted(satchel().db, idOf(event), null))
    throw notFound('There is no such letterhead.')
  return { ok: true }
})
