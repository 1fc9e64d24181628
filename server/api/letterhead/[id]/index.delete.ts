import { setLetterheadDeleted } from '~~/database/letters'

/** Takes a letterhead away; letters in it are in the account's own then. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  if (!setLetterheadDeleted(db, idOf(event), clock()))
    throw notFound('There is no such letterhead.')
  return { ok: true }
})
