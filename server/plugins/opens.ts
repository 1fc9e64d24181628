import type { ServerResponse } from 'node:http'
import { readToken } from '~~/core/delivery'

/** One character a byte: a text goes out with the headers in one piece, bytes in a piece of their own. */
const gif = Buffer.from(
  'R0lGODlhAQABAIAAAAAAAP///yH5BAEAAAAALAAAAAABAAEAAAIBRAA7',
  'base64',
).toString('latin1')
const headers = {
  'Content-Type': 'image/gif',
  'X-Content-Type-Options': 'nosniff',
  'Content-Length': gif.length,
  'Cache-Control': 'no-store, private',
}

/**
 * `/o/TOKEN.gif`, the picture of one pixel in every letter: its being fetched is an open, and it is
 * answered when that is stored.
 */
export default defineNitroPlugin((nitro) =>
  beforeAll(nitro.h3App, '/o/', (event, rest) => {
    const { req, res } = event.node
    const token = rest.endsWith('.gif') ? rest.slice(0, -4) : ''
    const of = /^[a-z2-7]+$/.test(token) ? readToken(publicTokens(), 'open', token) : null
    if (!of || req.method !== 'GET') return Promise.resolve(noSuchLink(event))
    const act = {
      ...of,
      kind: 'open' as const,
      link: null,
      at: satchel().clock(),
      agent: req.headers['user-agent'] ?? '',
      method: 'GET',
    }
    return recordAct(act).then(() => answer(res))
  }),
)

function answer(res: ServerResponse) {
  res.writeHead(200, headers)
  res.end(gif, 'latin1')
}
