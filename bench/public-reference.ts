import type { AddressInfo } from 'node:net'
import { createServer } from 'node:http'
import { readFileSync } from 'node:fs'
import { createApp, defineEventHandler, toNodeListener } from 'h3'

/** Bare handlers that answer the pixel and the page of a file, with the same framework and nothing done; prints the port. */
const page = readFileSync(process.argv[2]!)
const gif = Buffer.from('R0lGODlhAQABAIAAAAAAAP///yH5BAEAAAAALAAAAAABAAEAAAIBRAA7', 'base64')
const app = createApp()
for (const [route, body, type] of [
  ['/o/', gif, 'image/gif'],
  ['/w/', page, 'text/html; charset=utf-8'],
] as const)
  app.use(
    route,
    defineEventHandler((event) => {
      event.node.res.writeHead(200, { 'Content-Type': type, 'Content-Length': body.length })
      event.node.res.end(body)
    }),
  )
const server = createServer(toNodeListener(app))
server.listen(0, '127.0.0.1', () => console.log((server.address() as AddressInfo).port))
