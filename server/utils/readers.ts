import { fork, type ChildProcess } from 'node:child_process'
import { Agent, request, type IncomingMessage } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { H3Event } from 'h3'
import { processorTime } from '../../cases/apart'

/**
 * The pages' requests are answered by processes of their own, which run the same handlers: whatever a page reads, no
 * open, click, unsubscribing or sign-in waits for it.
 */

/** As many pages can read at once; one that reads for long holds up at most half of the others. */
const READERS = 2
/** So much of the processor's time one request may take, ms; then its reader is ended and begun anew. */
const LONGEST = 30_000

/** What stays here: what is said without reading much, what is told as it happens, and who is where. */
const stays = [
  /^\/api\/(session|me|users|owner|health|live)(\/|$)/,
  /^\/api\/v1\//,
  /^\/api\/mailings\/\d+\/presence$/,
]
export const isForReaders = (path: string) =>
  path.startsWith('/api/') && !stays.some((pattern) => pattern.test(path))

interface Reader {
  socket: string
  child: ChildProcess
  agent: Agent
  ready: boolean
  /** Requests under way: when they began and what the processor had spent by then. */
  underway: Set<{ began: number }>
  busySince: { at: number; spent: number | null } | null
  /** Counts what its pages could show anew; see `costlyCountsOver`. */
  over: number
}

const readers: Reader[] = []
const waiting: (() => void)[] = []

/** Begins them; only in the process that the world speaks to. */
export function startReaders() {
  for (let n = 0; n < READERS; n++) start(n)
  setInterval(lookAtTime, 500).unref()
}

/** Grows when a reader's costly counts can be made anew. */
export function readersOver(): number {
  return readers.reduce((sum, { over }) => sum + over, 0)
}

function start(n: number) {
  const socket = join(tmpdir(), `satchel-${process.pid}-${n}-${Date.now() % 1e6}.sock`)
  const child = fork(process.argv[1]!, {
    env: { ...process.env, SATCHEL_READER: '1', NITRO_UNIX_SOCKET: socket },
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    execArgv: process.execArgv,
  })
  const reader: Reader = {
    ...{ socket, child, ready: false, busySince: null, over: 0 },
    agent: new Agent({ keepAlive: true }),
    underway: new Set(),
  }
  readers[n] = reader
  child.on('message', (message: ReaderMessage) => {
    if ('over' in message) reader.over = message.over
    else
      askHere(message.asks.ask, message.asks.of, message.asks.from).then(
        (answer) => child.connected && child.send({ id: message.id, answer }),
        (error: { statusCode?: number; message: string }) =>
          child.connected &&
          child.send({ id: message.id, status: error.statusCode ?? 500, problem: error.message }),
      )
  })
  child.on('error', () => {})
  child.on('exit', () => {
    if (readers[n] === reader) setTimeout(() => start(n), 200).unref()
  })
  void becomeReady(reader)
}

async function becomeReady(reader: Reader) {
  while (reader.child.exitCode === null && reader.child.signalCode === null) {
    const answers = await new Promise<boolean>((done) => {
      const asked = request({ socketPath: reader.socket, path: '/api/health' }, (answer) => {
        answer.resume()
        done(true)
      })
      asked.on('error', () => done(false))
      asked.end()
    })
    if (answers) {
      reader.ready = true
      for (const go of waiting.splice(0)) go()
      return
    }
    await new Promise((again) => setTimeout(again, 50))
  }
}

/** The one with the least to do; waits where none has begun yet. */
async function freest(): Promise<Reader> {
  for (;;) {
    const able = readers.filter(({ ready, child }) => ready && child.connected)
    if (able.length) return able.reduce((a, b) => (b.underway.size < a.underway.size ? b : a))
    await new Promise<void>((go) => waiting.push(go))
  }
}

/** Has a reader answer a request. */
export async function forward(event: H3Event): Promise<void> {
  const { req, res } = event.node
  const reader = await freest()
  const mine = { began: performance.now() }
  reader.busySince ??= {
    at: performance.now(),
    spent: reader.child.pid ? processorTime(reader.child.pid) : null,
  }
  reader.underway.add(mine)
  try {
    await new Promise<void>((done) => {
      const asked = request(
        {
          socketPath: reader.socket,
          agent: reader.agent,
          method: req.method,
          path: req.originalUrl ?? req.url,
          headers: { ...req.headers, 'x-satchel-from': askedFrom(req) },
        },
        (answer: IncomingMessage) => {
          // Of the line to the reader, not of that to the browser (RFC 9110, 7.6.1).
          const { connection: _, 'keep-alive': __, ...headers } = answer.headers
          res.writeHead(answer.statusCode!, headers)
          answer.pipe(res)
          answer.on('close', done)
        },
      )
      asked.on('error', () => {
        if (!res.headersSent) {
          res.writeHead(503, { 'Content-Type': 'application/json' })
          const message = 'This took too long, or was interrupted. Try again.'
          res.end(JSON.stringify({ statusCode: 503, message, error: true }))
        } else res.destroy()
        done()
      })
      // Nobody waits for it any more.
      res.on('close', () => {
        if (!res.writableFinished) asked.destroy()
        done()
      })
      req.pipe(asked)
    })
  } finally {
    reader.underway.delete(mine)
    reader.busySince = reader.underway.size
      ? { at: performance.now(), spent: reader.child.pid ? processorTime(reader.child.pid) : null }
      : null
  }
}

/** A reader that has worked too long without answering anything is ended; another takes its place. */
function lookAtTime() {
  readers.forEach((reader, n) => {
    const { busySince, child } = reader
    if (!busySince || !child.pid) return
    const spent = processorTime(child.pid)
    const used =
      spent !== null && busySince.spent !== null
        ? spent - busySince.spent
        : performance.now() - busySince.at
    if (used < LONGEST) return
    start(n)
    child.kill('SIGKILL')
  })
}

/** What a reader tells the process that began it: a question for the askers, or that counts can be made anew. */
export type ReaderMessage =
  { id: number; asks: { ask: never; of: never; from: string | null } } | { over: number }
