import { endSessionsOf } from '~~/database/sessions'

/** Ends all of one's sessions but this one. */
export default defineEventHandler((event) => {
  const { user, session } = me(event)
  return { ended: endSessionsOf(satchel().db, user.id, session.id) }
})
