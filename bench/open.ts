import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { makeToken } from '../core/delivery'
import { closeDatabase, one, openDatabase, q } from '../database'
import { readAccount } from '../database/account'
import { fillAccount } from '../database/made-up'
import { serving, type Measure } from './harness'
import { load } from './load'
import { startWeb } from './web-process'

const REQUESTS = 30_000
const CONNECTIONS = 64

/** Opens a second of the running web process, every one stored, against a bare h3 handler that answers the same GIF. */
export const opens: Measure = {
  name: 'open',
  unit: 'requests/s',
  promise: { atLeast: 0.5 },
  runs: 3,
  async run() {
    const bare = await serving('./open-reference.ts')
    const paths = ['/o/x.gif']
    await load(Number(bare.line), paths, REQUESTS / 5, CONNECTIONS)
    const reference = await load(Number(bare.line), paths, REQUESTS, CONNECTIONS)
    await bare.stop()
    const ours = await oursOnce()
    return { ours, reference }
  },
}

async function oursOnce(): Promise<number> {
  const data = mkdtempSync(join(tmpdir(), 'satchel-bench-'))
  const db = openDatabase(data)
  fillAccount(db, { zone: 'UTC', sender_address: 'hello@bench.example' })
  const key = Buffer.from(readAccount(db)!.token_key, 'hex')
  const paths = Array.from({ length: 5_000 }, (_, i) => `/o/${makeToken(key, 'open', 1, i)}.gif`)
  const web = await startWeb(data)
  let rate: number
  try {
    await load(web.port, paths, REQUESTS / 5, CONNECTIONS)
    rate = await load(web.port, paths, REQUESTS, CONNECTIONS)
  } finally {
    await web.stop()
  }
  const stored = one(
    db,
    q.selectFrom('acts').select((eb) => eb.fn.countAll<number>().as('n')),
  )!.n
  closeDatabase(db)
  rmSync(data, { recursive: true })
  if (stored !== REQUESTS + REQUESTS / 5) throw new Error(`${stored} opens stored`)
  return rate
}
