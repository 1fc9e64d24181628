import { readAccount } from '~~/database/account'
import { hasUsers, userById } from '~~/database/users'

/** Who is signed in, and what the shell of every page needs to know. */
export default defineEventHandler(async (event) => {
  const { db, practice, sends, url } = satchel()
  const session = await getUserSession(event)
  const id = (session.user as { id?: number } | undefined)?.id
  const user = id === undefined ? null : (userById(db, id) ?? null)
  const found = user ? readAccount(db) : null
  return {
    needsOwner: !hasUsers(db),
    user,
    account: found && {
      name: found.name,
      zone: found.zone,
      currency: found.currency,
      letterhead: found.letterhead,
    },
    practice,
    sends,
    url,
  }
})
