import { endSession } from '~~/database/account'

/** Signs out: the session is over, wherever its key may be. */
export default defineEventHandler((event) => {
  const { user, session } = me(event)
  endSession(satchel().db, user.id, session.id)
  signOutHere(event)
  return { ok: true }
})
