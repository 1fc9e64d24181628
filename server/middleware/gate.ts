import type { H3Event } from 'h3'
import { comesFromHere } from '~~/core/sign-in'
import { CONFIRMED_FOR, handlerOf, mayCall, permissionOf, type Handler } from '~~/core/team'
import { apiSchemas } from '~~/shared/api-inputs'

/** What else than JSON a handler takes: a file as it is, or a form whose answer the browser saves. */
const takes: Partial<Record<Handler, RegExp>> = {
  'POST /api/imports/file': /^application\/octet-stream$/,
  'POST /api/pictures': /^application\/octet-stream$/,
  'POST /api/sign-ups/files': /^application\/octet-stream$/,
  'POST /api/mailings/from-file': /^application\/octet-stream$/,
  'POST /api/people/export': /^application\/x-www-form-urlencoded$/,
}

/**
 * Stands before every handler of `/api`: whether a request that changes something comes from a page of ours, who is behind
 * it, and whether they may (`core/team/permissions.ts`). Programs come with a token, and each of their handlers asks for it.
 */
export default defineEventHandler((event) => {
  const path = event.path.split('?')[0]!
  if (!path.startsWith('/api/')) return
  const handler = handlerOf(event.method, path)
  if (!handler) {
    const others = methodsOf(path)
    if (path.startsWith('/api/v1/') && others.includes(event.method)) return
    throw others.length ? otherMethod(event, others) : notFound('There is nothing here.')
  }
  if (event.method !== 'GET' && event.method !== 'HEAD') refuseFromElsewhere(event, handler)
  const who = whoAsks(event)
  event.context.handler = handler
  if (who) event.context.me = who
  const { least, sensitive } = permissionOf(handler)
  if (least === 'anybody') return
  if (!who) throw createError({ statusCode: 401, message: 'Sign in first.' })
  if (!mayCall(who.user.role, handler))
    throw createError({
      statusCode: 403,
      message: `This takes the role “${least}”; yours is “${who.user.role}”. An owner can change that.`,
    })
  if (sensitive && satchel().hostClock() - who.session.confirmed_at >= CONFIRMED_FOR)
    throw createError({
      statusCode: 403,
      message: 'Give your password again first: it was not given for an hour.',
      data: { confirm: true },
    })
})

/** By which methods something is asked: of pages, and of programs. */
function methodsOf(path: string): string[] {
  const ofPrograms = /^\/api\/v1\/(.+)$/
    .exec(path)?.[1]
    ?.replace(/^sign-ups\/[\w-]+$/, 'sign-ups/{key}')
  if (ofPrograms)
    return ofPrograms in apiSchemas
      ? ['POST']
      : ofPrograms === 'openapi.json'
        ? ['GET', 'HEAD']
        : []
  return ['GET', 'POST', 'PUT', 'DELETE'].filter((method) => handlerOf(method, path))
}

/** RFC 9110, 15.5.6. */
function otherMethod(event: H3Event, allowed: readonly string[]) {
  setResponseHeader(event, 'Allow', allowed.join(', '))
  return createError({ statusCode: 405, message: `This is asked by ${allowed.join(' or ')}.` })
}

function refuseFromElsewhere(event: Parameters<typeof getHeader>[0], handler: Handler) {
  const { host, origin, 'sec-fetch-site': site } = getHeaders(event)
  if (!comesFromHere({ site, origin, host, url: satchel().url }))
    throw createError({
      statusCode: 403,
      message: 'This did not come from a page of this Satchel, so nothing was done.',
    })
  const type = getHeader(event, 'content-type')?.split(';')[0]!.trim().toLowerCase()
  const empty =
    (getHeader(event, 'content-length') ?? '0') === '0' && !getHeader(event, 'transfer-encoding')
  if (type === undefined ? !empty : !(takes[handler] ?? /^application\/json$/).test(type))
    throw createError({ statusCode: 415, message: 'This is not taken in this form.' })
}
