import { connect } from 'node:net'

interface Measured {
  /** Requests a second. */
  rate: number
  /** 99 of 100 were answered within this, ms. */
  p99: number
}

/**
 * Sends so many GET requests over so many kept connections, one at a time on each, by bare sockets,
 * so that the load costs little beside what it measures. Requests a second; every answer must be 200.
 */
export async function load(
  port: number,
  paths: string[],
  requests: number,
  connections: number,
): Promise<number> {
  let sent = 0
  const { rate } = await ask(port, connections, () =>
    sent < requests ? get(paths[sent++ % paths.length]!) : null,
  )
  return rate
}

/** A form that is posted, as if through a proxy for somebody at an address. */
export interface Posting {
  path: string
  body: string
  from: string
}

/** The same with forms, each posted once. */
export async function loadForms(
  port: number,
  forms: readonly Posting[],
  connections: number,
): Promise<number> {
  let sent = 0
  const { rate } = await ask(port, connections, () => {
    const form = forms[sent++]
    return form ? post(form) : null
  })
  return rate
}

const get = (path: string) =>
  `GET ${path} HTTP/1.1\r\nHost: 127.0.0.1\r\nUser-Agent: SailMail/4.1\r\n\r\n`
const post = ({ path, body, from }: Posting) =>
  `POST ${path} HTTP/1.1\r\nHost: 127.0.0.1\r\nUser-Agent: Browser/1\r\nX-Forwarded-For: ${from}\r\nContent-Type: application/x-www-form-urlencoded\r\nContent-Length: ${body.length}\r\n\r\n${body}`

/** The same for a time, ms; `gap`: each connection waits so long between two. */
export async function loadFor(
  port: number,
  paths: string[],
  ms: number,
  connections: number,
  gap = 0,
): Promise<Measured> {
  const end = performance.now() + ms
  let sent = 0
  return ask(
    port,
    connections,
    () => (performance.now() < end ? get(paths[sent++ % paths.length]!) : null),
    gap,
  )
}

async function ask(
  port: number,
  connections: number,
  nextRequest: () => string | null,
  gap = 0,
): Promise<Measured> {
  const times: number[] = []
  const began = performance.now()
  await Promise.all(Array.from({ length: connections }, () => oneConnection()))
  const rate = times.length / ((performance.now() - began) / 1000)
  times.sort((a, b) => a - b)
  return { rate, p99: times[Math.floor(times.length * 0.99)] ?? 0 }

  function oneConnection(): Promise<void> {
    return new Promise((done, failed) => {
      const socket = connect(port, '127.0.0.1')
      socket.setNoDelay(true)
      let buffered = ''
      let asked = 0
      const next = () => {
        const request = nextRequest()
        if (request === null) return void socket.end(() => done())
        asked = performance.now()
        socket.write(request)
      }
      socket.on('connect', next)
      socket.on('error', failed)
      socket.on('data', (piece: Buffer) => {
        buffered += piece.toString('latin1')
        const head = buffered.indexOf('\r\n\r\n')
        if (head < 0) return
        const length = Number(/content-length: (\d+)/i.exec(buffered)?.[1] ?? NaN)
        if (!(buffered.length >= head + 4 + length)) return
        if (!buffered.startsWith('HTTP/1.1 200')) return failed(new Error(buffered.slice(0, 100)))
        buffered = ''
        times.push(performance.now() - asked)
        if (gap) setTimeout(next, gap)
        else next()
      })
    })
  }
}
