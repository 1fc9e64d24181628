import type { Server } from 'node:http'
import { setPriority } from 'node:os'
import type { NitroApp } from 'nitropack/types'
import { startCompiling } from '~~/cases/apart'

/** How often a reader says that what it counted can be counted anew, ms. */
const OFTEN = 350

/**
 * The processes that answer what takes long begin with this one, ahead of the first question: askers, and readers, which
 * run this same program and answer the pages.
 */
export default defineNitroPlugin((nitro) => {
  startCompiling()
  if (process.env.SATCHEL_READER) return beReader(nitro)
  keepLines(nitro, 65_000)
  startAskers()
  startReaders()
  nitro.h3App.stack.unshift({
    route: '/api/',
    handler: defineEventHandler((event) => {
      const { req } = event.node
      const path = (req.originalUrl ?? '').split('?')[0]!
      if (!isForReaders(path) || bodyProblem(path, req.headers)) return
      return forward(event)
    }),
  })
})

/** What readers of letters open and press goes first where the processor is short (nice value, 0 is usual, 19 the last). */
const AFTER_OPENS = 5

/**
 * How long a line is kept open on which nothing comes, ms; 0: for ever. Whoever closes it first may lose a request that was
 * just sent on it, so it is longer than the minute for which proxies and browsers keep theirs.
 */
function keepLines(nitro: NitroApp, ms: number) {
  nitro.hooks.hook('request', ({ node }) => {
    const { server } = node.req.socket as { server?: Server }
    if (server) server.keepAliveTimeout = ms
  })
}

function beReader(nitro: NitroApp) {
  // The process before it is the only one that asks, and ends with it.
  keepLines(nitro, 0)
  setPriority(AFTER_OPENS)
  // Whoever began it may be gone before it could listen for that.
  if (!process.connected) process.exit()
  process.on('disconnect', () => process.exit())
  let told = 0
  setInterval(() => {
    const over = costlyCountsOver()
    if (over !== told) process.send?.({ over: (told = over) })
  }, OFTEN).unref()
}
