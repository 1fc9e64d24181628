import type { ServerResponse } from 'node:http'

const headers = {
  'Content-Type': 'text/html; charset=utf-8',
  'Content-Security-Policy':
    "default-src 'none'; style-src 'unsafe-inline'; img-src 'self' https: http:; base-uri 'none'; form-action 'none'; frame-ancestors 'none'",
  'Referrer-Policy': 'no-referrer',
  'X-Content-Type-Options': 'nosniff',
  'Cache-Control': 'no-cache',
}

/** `/w/KEY`, the web version of a letter. */
export default defineNitroPlugin((nitro) =>
  beforeAll(nitro.h3App, '/w/', async (event, key) => {
    const { req, res } = event.node
    const reads = req.method === 'GET' || req.method === 'HEAD'
    const page = reads && /^[\w-]{10,40}$/.test(key) ? await webVersion(key) : null
    if (!page) return noSuchLink(event)
    answer(res, page, req.method === 'HEAD')
  }),
)

function answer(res: ServerResponse, page: Buffer, headOnly: boolean) {
  res.writeHead(200, { ...headers, 'Content-Length': page.length })
  res.end(headOnly ? undefined : page)
}
