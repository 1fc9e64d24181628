import { endSession } from '~~/database/account'

/** Ends one of one's sessions. */
export default defineEventHandler((event) => {
  if (!endSession(satchel().db, me(event).user.id, idOf(event)))
    throw notFound('This session is over already.')
  return { ok: true }
})
