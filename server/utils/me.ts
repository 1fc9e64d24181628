import type { H3Event } from 'h3'
import { deviceOf } from '~~/core/team'
import { beginSession, useSessionOf, type Session, userById, type User } from '~~/database/account'

/** Who asks, and by which session. */
export interface Me {
  user: User
  session: Session
}

/** A year, s. */
const DEVICE_KNOWN_FOR = 365 * 24 * 3_600

const secure = () => satchel().url.startsWith('https:')
/** A name that browsers take only over https and from this host alone (RFC 6265bis, 4.1.3.2), where that is how it is reached. */
const nameOf = (cookie: string) => (secure() ? `__Host-${cookie}` : cookie)

/** Where a request comes from: the address (that which the proxy before Satchel saw, if there is one) and the browser. */
export function fromOf(event: H3Event): { address: string; device: string } {
  const device = deviceOf(getHeader(event, 'user-agent') ?? '')
  return { address: addressOf(event), device }
}

function addressOf(event: H3Event): string {
  // A reader is asked by the web process alone, which says who asked that.
  if (process.env.SATCHEL_READER) return getHeader(event, 'x-satchel-from') ?? ''
  return askedFrom(event.node.req)
}

/** Who is signed in by the request's session; null for nobody. */
export function whoAsks(event: H3Event): Me | null {
  const key = getCookie(event, nameOf('satchel'))
  if (!key) return null
  const { db, hostClock } = satchel()
  const session = useSessionOf(db, key.slice(0, 100), fromOf(event), hostClock())
  const user = session && userById(db, session.user_id)
  return session && user ? { user, session } : null
}

/** Who asks, behind the gate: there is always somebody who came that far. */
export function me(event: H3Event): Me {
  const known = event.context.me as Me | undefined
  if (!known) throw createError({ statusCode: 401, message: 'Sign in first.' })
  return known
}

/** Who asks, as they are named in what they write. */
export function author(event: H3Event): { id: number; name: string } {
  const { id, name } = me(event).user
  return { id, name }
}

/** Signs somebody in on this browser: a new session with a new key, whatever the browser came with. */
export function signInHere(event: H3Event, userId: number) {
  const { db, hostClock } = satchel()
  const key = beginSession(db, userId, fromOf(event), hostClock())
  const cookie = { httpOnly: true, sameSite: 'lax', secure: secure(), path: '/' } as const
  setCookie(event, nameOf('satchel'), key, { ...cookie, maxAge: 90 * 24 * 3_600 })
  setCookie(event, nameOf('satchel-device'), knownDevice(userId), {
    ...cookie,
    maxAge: DEVICE_KNOWN_FOR,
  })
}

export function signOutHere(event: H3Event) {
  deleteCookie(event, nameOf('satchel'), { path: '/', secure: secure() })
}

/** The device cookie of the request, where it is one that this user signed in with. */
export function deviceCookieOf(event: H3Event, userId: number | undefined): string | null {
  const cookie = getCookie(event, nameOf('satchel-device')) ?? ''
  return userId !== undefined && isKnownDevice(cookie, userId) ? cookie : null
}
