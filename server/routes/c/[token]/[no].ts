import { readToken } from '~~/core/delivery'
import { linkOf } from '~~/database/mailings'

/** A link of a letter: stores the click and leads to where that letter's link leads, nowhere else. */
export default defineEventHandler(async (event) => {
  const of = readToken(publicTokens(), 'click', getRouterParam(event, 'token')!)
  const no = /^\d{1,9}$/.test(getRouterParam(event, 'no')!)
    ? Number(getRouterParam(event, 'no'))
    : -1
  const url = of && linkOf(satchel().db, of.mailingId, no)
  if (!of || !url || !['GET', 'HEAD'].includes(event.method)) return noSuchLink(event)
  await recordAct({
    ...of,
    kind: 'click',
    link: no,
    at: satchel().clock(),
    agent: getHeader(event, 'user-agent') ?? '',
    method: event.method,
  })
  setResponseHeaders(event, {
    'Cache-Control': 'no-store, private',
    'Referrer-Policy': 'no-referrer',
  })
  return sendRedirect(event, url, 302)
})
