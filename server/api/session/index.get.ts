import { readAccount, hasUsers } from '~~/database/account'

/** Who is signed in, and what the shell of every page needs to know. */
export default defineEventHandler((event) => {
  const { db, practice, sends, url } = satchel()
  const { user = null } = (event.context.me as Me | undefined) ?? {}
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
