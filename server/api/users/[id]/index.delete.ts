import { removeUser } from '~~/database/account'

/** Removes a user: they are signed out everywhere; what they wrote stays, in their name. */
export default defineEventHandler((event) => {
  const user = userOf(event)
  const { db, hostClock } = satchel()
  if (user.id === me(event).user.id) throw refused('You can’t remove yourself. Another owner can.')
  if (!removeUser(db, user.id, hostClock()))
    throw refused('Somebody has to be an owner. Make somebody else one first.')
  return { ok: true }
})
