import type { ServerResponse } from 'node:http'
import type { H3Event } from 'h3'
import { readToken } from '~~/core/delivery'

type Around = (event: H3Event, ...rest: never[]) => void | Promise<void>

const route = '/o/'
const gif = Buffer.from('R0lGODlhAQABAIAAAAAAAP///yH5BAEAAAAALAAAAAABAAEAAAIBRAA7', 'base64')
const headers = {
  'Content-Type': 'image/gif',
  'Content-Length': gif.length,
  'Cache-Control': 'no-store, private',
}

/**
 * `/o/TOKEN.gif`, the picture of one pixel in every letter: its being fetched is an open, and it is
 * answered when that is stored. Opens come by the thousand in the minutes after a mailing, so this
 * stands before everything else that looks at a request.
 */
export default defineNitroPlugin((nitro) => {
  passBy(nitro.h3App.options)
  nitro.h3App.stack.unshift({
    route,
    handler: defineEventHandler((event) => {
      // h3 cuts the route off the path it hands on.
      const token = /^\/?([a-z2-7]+)\.gif(\?|$)/.exec(event.path)?.[1]
      const of = token === undefined ? null : readToken(publicKey(), 'open', token)
      if (!of || event.method !== 'GET') return noSuchLink(event)
      const { req, res } = event.node
      const agent = req.headers['user-agent'] ?? ''
      const act = {
        ...of,
        kind: 'open' as const,
        link: null,
        at: satchel().clock(),
        agent,
        method: 'GET',
      }
      return recordAct(act).then(() => answer(res))
    }),
  })
})

const isPublic = (path: string | undefined) =>
  path !== undefined && (path.startsWith(route) || path.startsWith('/w/'))

/** What is done around every other request, for the sake of pages, is not done around opens and web versions. */
function passBy(options: { onRequest?: Around; onAfterResponse?: Around }) {
  for (const name of ['onRequest', 'onAfterResponse'] as const) {
    const around = options[name]
    options[name] = (event, ...rest) =>
      isPublic(event.node.req.originalUrl) ? undefined : around?.(event, ...rest)
  }
}

function answer(res: ServerResponse) {
  res.writeHead(200, headers)
  res.end(gif)
}
