import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { createApp, eventHandler, setResponseHeaders, toNodeListener } from 'h3'

/** A bare h3 handler that answers the GIF of one pixel; prints its port. */
const gif = Buffer.from('R0lGODlhAQABAIAAAAAAAP///yH5BAEAAAAALAAAAAABAAEAAAIBRAA7', 'base64')
const app = createApp()
app.use(
  eventHandler((event) => {
    setResponseHeaders(event, { 'Content-Type': 'image/gif', 'Cache-Control': 'no-store, private' })
    return gif
  }),
)
const server: Server = createServer(toNodeListener(app))
server.listen(0, '127.0.0.1', () => console.log((server.address() as AddressInfo).port))
