import { endSessionsOf } from '~~/database/account'

/** Ends all of one's sessions but this one. */
export default defineEventHandler((event) => {
  const { user, session } = me(event)
  return { ended: endSessionsOf(satchel().db, user.id, session.id) }
})
