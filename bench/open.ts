import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { makeToken } from '../core/delivery'
import { closeDatabase, one, openDatabase, q } from '../database'
import { readAccount } from '../database/account'
import { fillAccount } from '../database/made-up'
import { median, serving, type Measure } from './harness'
import { load } from './load'
import { startWeb } from './web-process'

const ROUNDS = 15
const REQUESTS = 6_000
const CONNECTIONS = 64

/**
 * Opens a second of the running web process, every one stored, against a bare h3 handler that answers the same GIF. In short
 * rounds by turns: what else the machine does meanwhile meets both.
 */
export const opens: Measure = {
  name: 'open',
  unit: 'requests/s',
  promise: { atLeast: 0.7 },
  runs: 3,
  async run() {
    const bare = await serving('./open-reference')
    const data = mkdtempSync(join(tmpdir(), 'satchel-bench-'))
    const db = openDatabase(data)
    fillAccount(db, { zone: 'UTC', sender_address: 'hello@bench.example' })
    const key = Buffer.from(readAccount(db)!.token_key, 'hex')
    const paths = Array.from({ length: 5_000 }, (_, i) => `/o/${makeToken(key, 'open', 1, i)}.gif`)
    const web = await startWeb(data)
    const rates = { ours: [] as number[], reference: [] as number[] }
    try {
      // The first round of each is for the compiler.
      for (let round = 0; round <= ROUNDS; round++) {
        const reference = await load(Number(bare.line), ['/o/x.gif'], REQUESTS, CONNECTIONS)
        const ours = await load(web.port, paths, REQUESTS, CONNECTIONS)
        if (round === 0) continue
        rates.reference.push(reference)
        rates.ours.push(ours)
      }
    } finally {
      await web.stop()
      await bare.stop()
    }
    const stored = one(
      db,
      q.selectFrom('acts').select((eb) => eb.fn.countAll<number>().as('n')),
    )!.n
    closeDatabase(db)
    rmSync(data, { recursive: true })
    if (stored !== REQUESTS * (ROUNDS + 1)) throw new Error(`${stored} opens stored`)
    return { ours: median(rates.ours), reference: median(rates.reference) }
  },
}
