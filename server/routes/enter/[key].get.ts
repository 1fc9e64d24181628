import { firstUser } from '~~/database/account'

const isLoopback = (address: string) => /^(::ffff:)?127\.|^::1$/.test(address)

/** Signs in to the demo account, by the address that `npm run demo` prints. Nowhere else, and only from this machine. */
export default defineEventHandler((event) => {
  const { db, enterKey } = satchel()
  const user = firstUser(db)
  const { req } = event.node
  const near = isLoopback(req.socket.remoteAddress ?? '') && !req.headers['x-forwarded-for']
  if (!user || !near || !sameSecret(getRouterParam(event, 'key')!, enterKey))
    return noSuchLink(event)
  signInHere(event, user.id)
  noteWhat(event, user, 'signed in', '/session')
  return sendRedirect(event, '/', 302)
})
