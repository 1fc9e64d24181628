import { connect } from 'node:net'

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
  const began = performance.now()
  await Promise.all(Array.from({ length: connections }, () => oneConnection()))
  return requests / ((performance.now() - began) / 1000)

  function oneConnection(): Promise<void> {
    return new Promise((done, failed) => {
      const socket = connect(port, '127.0.0.1')
      socket.setNoDelay(true)
      let buffered = ''
      const next = () => {
        if (sent >= requests) return void socket.end(() => done())
        const path = paths[sent++ % paths.length]!
        socket.write(`GET ${path} HTTP/1.1\r\nHost: 127.0.0.1\r\nUser-Agent: SailMail/4.1\r\n\r\n`)
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
        next()
      })
    })
  }
}
