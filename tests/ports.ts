import { createServer } from 'node:net'

/**
 * Ports below those from which the system takes one for whoever connects to somewhere (32,768 and up on Linux), so that
 * nobody takes one between its being found free and its being listened on; each of the tests' processes has a range of its own.
 */
const FIRST = 15_000
const EACH = 1_500
let next = FIRST + (Number(process.env.VITEST_POOL_ID ?? 0) % 10) * EACH + (process.pid % 1_000)

/** So many ports that nobody listens on. */
export async function freePorts(n: number): Promise<number[]> {
  const found: number[] = []
  while (found.length < n) {
    const port = next++
    if (await isFree(port)) found.push(port)
  }
  return found
}

function isFree(port: number): Promise<boolean> {
  return new Promise((done) => {
    const server = createServer()
    server.once('error', () => done(false))
    server.listen(port, '127.0.0.1', () => server.close(() => done(true)))
  })
}
