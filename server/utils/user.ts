import type { H3Event } from 'h3'
import { userById, type User } from '~~/database/account'

/** The user in the path. */
export function userOf(event: H3Event): User {
  const user = userById(satchel().db, idOf(event))
  if (!user) throw notFound('Nobody like this works here.')
  return user
}
