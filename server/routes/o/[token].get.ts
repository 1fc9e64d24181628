import { readToken } from '~~/core/delivery'

const gif = Buffer.from('R0lGODlhAQABAIAAAAAAAP///yH5BAEAAAAALAAAAAABAAEAAAIBRAA7', 'base64')

/** The picture of one pixel in every letter: its being fetched is an open. Answered when it is stored. */
export default defineEventHandler(async (event) => {
  const token = getRouterParam(event, 'token')!.replace(/\.gif$/, '')
  const of = readToken(publicKey(), 'open', token)
  if (!of) return noSuchLink(event)
  await recordAct({
    ...of,
    kind: 'open',
    link: null,
    at: satchel().clock(),
    agent: getHeader(event, 'user-agent') ?? '',
    method: 'GET',
  })
  setResponseHeaders(event, { 'Content-Type': 'image/gif', 'Cache-Control': 'no-store, private' })
  return gif
})
