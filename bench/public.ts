import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { makeToken } from '../core/delivery'
import { closeDatabase, openDatabase } from '../database'
import { readAccount } from '../database/account'
import { addList } from '../database/lists'
import { fillAccount, somebody } from '../database/made-up'
import { createMailing, mailingById } from '../database/mailings'
import { setWebVersion } from '../database/web-version'
import { finishedLetter } from '../tests/subscribers'
import { serving, type Measure } from './harness'
import { loadFor } from './load'
import { startWeb } from './web-process'

const MS = 6_000
const CONNECTIONS = 16

/**
 * Web versions and opens a second together, each as a share of what bare handlers answer of the same bytes; the smaller
 * share counts. In the notes the rates, and the p99 in ms of opens, of the page for unsubscribing and of the sign-in page
 * while 50 web versions a second are read.
 */
export const publicPages: Measure = {
  name: 'public',
  unit: 'of the bare handlers',
  promise: { atLeast: 0.5 },
  runs: 3,
  async run() {
    const data = mkdtempSync(join(tmpdir(), 'satchel-bench-'))
    const { opens, page, leave } = prepare(data)
    const web = await startWeb(data)
    try {
      const file = join(data, 'page.html')
      writeFileSync(
        file,
        Buffer.from(await (await fetch(`http://127.0.0.1:${web.port}${page}`)).arrayBuffer()),
      )
      const together = async (port: number) => {
        const [pages, seen] = await Promise.all([
          loadFor(port, [page], MS, CONNECTIONS),
          loadFor(port, opens, MS, CONNECTIONS),
        ])
        return { pages: pages.rate, opens: seen.rate }
      }
      await together(web.port)
      const ours = await together(web.port)
      const bare = await serving('./public-reference.ts', file)
      await together(Number(bare.line))
      const reference = await together(Number(bare.line))
      await bare.stop()
      const steady = loadFor(web.port, [page], MS, 5, 100)
      const p99 = async (paths: string[]) => (await loadFor(web.port, paths, MS, 2, 5)).p99
      const [open, leaving, signIn] = await Promise.all([
        p99(opens),
        p99([leave]),
        p99(['/api/session']),
      ])
      await steady
      return {
        ours: Math.min(ours.pages / reference.pages, ours.opens / reference.opens),
        reference: 1,
        notes: {
          'web versions': ours.pages,
          'bare web versions': reference.pages,
          opens: ours.opens,
          'bare opens': reference.opens,
          'p99 of opens': open,
          'p99 of unsubscribing': leaving,
          'p99 of signing in': signIn,
        },
      }
    } finally {
      await web.stop()
      rmSync(data, { recursive: true, force: true })
    }
  },
}

function prepare(data: string) {
  const db = openDatabase(data)
  fillAccount(db, { zone: 'UTC', sender_address: 'hello@bench.example' })
  const list = addList(db, { name: 'Wind notes', description: '' }, 0)
  const person = somebody(db, 'reader', { list })
  const id = createMailing(db, { name: 'Wind', listId: list, letter: finishedLetter() }, 0)
  const webKey = setWebVersion(db, mailingById(db, id)!.letter_id, true)!
  const key = Buffer.from(readAccount(db)!.token_key, 'hex')
  const opens = Array.from({ length: 2_000 }, (_, i) => `/o/${makeToken(key, 'open', 1, i)}.gif`)
  const leave = `/u/${makeToken(key, 'leave', id, person)}`
  closeDatabase(db)
  return { opens, leave, page: `/w/${webKey}` }
}
