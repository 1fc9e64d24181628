import { firstUser } from '~~/database/users'

/** Signs in to the demo account, by the address that `npm run demo` prints. Nowhere else. */
export default defineEventHandler(async (event) => {
  const { db, enterKey } = satchel()
  const user = firstUser(db)
  if (!user || !sameSecret(getRouterParam(event, 'key')!, enterKey)) return noSuchLink(event)
  await setUserSession(event, { user: { id: user.id } })
  return sendRedirect(event, '/', 302)
})
