import type { ServerResponse } from 'node:http'

const route = '/w/'
const headers = {
  'Content-Type': 'text/html; charset=utf-8',
  'Content-Security-Policy':
    "default-src 'none'; style-src 'unsafe-inline'; img-src 'self' https: http:; base-uri 'none'; form-action 'none'; frame-ancestors 'none'",
  'Referrer-Policy': 'no-referrer',
  'X-Content-Type-Options': 'nosniff',
  'Cache-Control': 'no-cache',
}

/** `/w/KEY`, the web version of a letter. Very many may come at once, so it stands beside opens, before all else. */
export default defineNitroPlugin((nitro) => {
  nitro.h3App.stack.unshift({
    route,
    handler: defineEventHandler(async (event) => {
      const key = /^\/?([\w-]{10,40})(\?|$)/.exec(event.path)?.[1]
      const method = event.method
      const page = key && (method === 'GET' || method === 'HEAD') ? await webVersion(key) : null
      if (!page) return noSuchLink(event)
      answer(event.node.res, page, method === 'HEAD')
    }),
  })
})

function answer(res: ServerResponse, page: Buffer, headOnly: boolean) {
  res.writeHead(200, { ...headers, 'Content-Length': page.length })
  res.end(headOnly ? undefined : page)
}
