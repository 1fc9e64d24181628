import type { AddressInfo } from 'node:net'
import { createServer } from 'node:http'
import { readFileSync } from 'node:fs'
import { createApp, defineEventHandler, toNodeListener } from 'h3'

/** Bare handlers that answer the pixel and the page of a file with the same bytes, headers and framework, and nothing done; prints the port. */
const page = readFileSync(process.argv[2]!)
const gif = Buffer.from('R0lGODlhAQABAIAAAAAAAP///yH5BAEAAAAALAAAAAABAAEAAAIBRAA7', 'base64')
const webHeaders = {
  'Content-Type': 'text/html; charset=utf-8',
  'Content-Security-Policy':
    "default-src 'none'; style-src 'unsafe-inline'; img-src 'self' https: http:; base-uri 'none'; form-action 'none'; frame-ancestors 'none'",
  'Referrer-Policy': 'no-referrer',
  'X-Content-Type-Options': 'nosniff',
  'Cache-Control': 'no-cache',
}
const app = createApp()
for (const [route, body, headers] of [
  ['/o/', gif, { 'Content-Type': 'image/gif', 'Cache-Control': 'no-store, private' }],
  ['/w/', page, webHeaders],
] as const)
  app.use(
    route,
    defineEventHandler((event) => {
      event.node.res.writeHead(200, { ...headers, 'Content-Length': body.length })
      event.node.res.end(body)
    }),
  )
const server = createServer(toNodeListener(app))
server.listen(0, '127.0.0.1', () => console.log((server.address() as AddressInfo).port))
