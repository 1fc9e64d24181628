import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { makeToken } from '../core/delivery'
import { closeDatabase, openDatabase } from '../database'
import { readAccount } from '../database/account'
import { addList } from '../database/people'
import { fillAccount, somebody } from '../database/made-up'
import { createMailing, mailingById } from '../database/mailings'
import { setWebVersion } from '../database/sending'
import { finishedLetter } from '../tests/subscribers'
import { median, serving, type Measure } from './harness'
import { loadFor } from './load'
import { startWeb } from './web-process'

const MS = 6_000
/** Ours and the bare handlers are asked in turns, so shortly that a busy machine is busy for both. */
const SLICE_MS = 500
const SLICES = 20
const CONNECTIONS = 16

/**
 * Web versions and opens a second together, each as a share of what bare handlers answer of the same bytes; the smaller
 * share counts (the median of those of neighbouring half seconds). In the notes the rates, and the p99 in ms of opens, of the page for unsubscribing and of the sign-in page
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
      const bare = await serving('./public-reference', file)
      const together = async (port: number, ms = SLICE_MS) => {
        const [pages, seen] = await Promise.all([
          loadFor(port, [page], ms, CONNECTIONS),
          loadFor(port, opens, ms, CONNECTIONS),
        ])
        return { pages: pages.rate, opens: seen.rate }
      }
      await together(web.port, MS)
      await together(Number(bare.line), MS)
      const ours = { pages: [] as number[], opens: [] as number[] }
      const reference = { pages: [] as number[], opens: [] as number[] }
      for (let slice = 0; slice < SLICES; slice++)
        for (const [port, into] of [
          [web.port, ours],
          [Number(bare.line), reference],
        ] as const) {
          const { pages, opens } = await together(port)
          into.pages.push(pages)
          into.opens.push(opens)
        }
      await bare.stop()
      const shares = (of: 'pages' | 'opens') => ours[of].map((rate, i) => rate / reference[of][i]!)
      const steady = loadFor(web.port, [page], MS, 5, 100)
      const p99 = async (paths: string[]) => (await loadFor(web.port, paths, MS, 2, 5)).p99
      const [open, leaving, signIn] = await Promise.all([
        p99(opens),
        p99([leave]),
        p99(['/api/session']),
      ])
      await steady
      return {
        ours: Math.min(median(shares('pages')), median(shares('opens'))),
        reference: 1,
        notes: {
          'web versions': median(ours.pages),
          'bare web versions': median(reference.pages),
          opens: median(ours.opens),
          'bare opens': median(reference.opens),
          'share of web versions': median(shares('pages')),
          'share of opens': median(shares('opens')),
          'lowest share of opens': Math.min(...shares('opens')),
          'highest share of opens': Math.max(...shares('opens')),
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
