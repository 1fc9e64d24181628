import { cpSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { startingLetter } from '../core/letters'
import { makeToken } from '../core/delivery'
import { closeDatabase, openDatabase, q, run } from '../database'
import { readAccount } from '../database/account'
import { createMailing } from '../database/mailings'
import { addSegment } from '../database/segments'
import type { Measure } from './harness'
import { load, loadFor } from './load'
import { millionFolder } from './million'
import { signedIn } from './signed-in'
import { startWeb } from './web-process'

const SECONDS = 12
const CONNECTIONS = 16

/** Opens a second while every page is asked in turn over a million people, against opens alone; p99 in the notes, ms. */
export const browsing: Measure = {
  name: 'browsing',
  unit: 'opens/s',
  promise: { atLeast: 0.8 },
  runs: 1,
  async run() {
    const data = mkdtempSync(join(tmpdir(), 'satchel-bench-'))
    cpSync(millionFolder(), data, { recursive: true })
    const { paths, opens } = prepare(data)
    const web = await startWeb(data)
    try {
      const ask = await signedIn(web.port)
      await load(web.port, opens, 5_000, CONNECTIONS)
      // Once before: what is kept ready is made then, as it was long before anybody looks.
      const slowest: [string, number][] = []
      for (const path of paths) {
        const began = performance.now()
        await ask(path)
        slowest.push([path, Math.round(performance.now() - began)])
      }
      slowest.sort((a, b) => b[1] - a[1])
      if (process.env.SATCHEL_BENCH_PAGES)
        for (const [path, ms] of slowest) console.log(`    ${ms} ms ${path}`)
      let alone = 0
      let beside = 0
      let p99 = 0
      // By turns, so that a machine that is busy for a while is so for both.
      for (let turn = 0; turn < 3; turn++) {
        alone += (await loadFor(web.port, opens, SECONDS * 1_000, CONNECTIONS)).rate / 3
        let asking = true
        const pages = (async () => {
          for (let i = 0; asking; i++) await ask(paths[i % paths.length]!)
        })()
        const measured = await loadFor(web.port, opens, SECONDS * 1_000, CONNECTIONS)
        asking = false
        await pages
        beside += measured.rate / 3
        p99 = Math.max(p99, measured.p99)
      }
      return { ours: beside, reference: alone, notes: { p99 } }
    } finally {
      await web.stop()
      rmSync(data, { recursive: true, force: true })
    }
  },
}

/** A mailing and a segment to look at, and what every page of the application asks for. */
function prepare(data: string) {
  const db = openDatabase(data)
  const letter = JSON.stringify(startingLetter().document)
  run(db, q.updateTable('letters').set({ document: letter, subject: 'Wind' }).where('id', '=', 1))
  const segment = addSegment(
    db,
    'Town 7',
    { kind: 'field', key: 'town', test: { is: 'equal', text: 'Town7' } },
    0,
  )
  const draft = createMailing(db, { name: 'To come', listId: 1, letter: startingLetter() }, 0)
  run(
    db,
    q
      .updateTable('mailings')
      .set({ rule: JSON.stringify({ kind: 'segment', segmentId: segment }) })
      .where('id', '=', draft),
  )
  const key = Buffer.from(readAccount(db)!.token_key, 'hex')
  const opens = Array.from(
    { length: 5_000 },
    (_, i) => `/o/${makeToken(key, 'open', 80, i * 4 + 4)}.gif`,
  )
  closeDatabase(db)
  return {
    opens,
    paths: [
      ...[
        '/api/session',
        '/api/today',
        '/api/people/overview',
        '/api/people',
        '/api/people?list=1',
      ],
      ...['/api/people?search=na', '/api/people?search=reader77', '/api/people?sort=name&way=up'],
      ...['/api/people?offset=400000', '/api/people?offset=900000&sort=spent', '/api/people/7'],
      ...[
        '/api/people?sort=field:town&way=up',
        '/api/people?suppressed=1',
        '/api/find?q=na',
        '/api/find?q=name7',
      ],
      ...['/api/fields', '/api/tags', '/api/lists', '/api/segments', '/api/segments/vocabulary'],
      ...[`/api/segments/${segment}`, `/api/segments/${segment}/trend`, '/api/segments/sizes'],
      ...['/api/segments/starts', `/api/segments/compare?ids=${segment}`, '/api/mailings'],
      ...[`/api/mailings/${draft}`, `/api/mailings/${draft}/proof`, `/api/mailings/${draft}/plan`],
      ...[`/api/mailings/${draft}/happening`, `/api/mailings/${draft}/drop-outs?step=segment`],
      ...[`/api/mailings/${draft}/renditions`, `/api/mailings/${draft}/read-as?n=3`],
      ...[
        `/api/mailings/${draft}/renderings?n=2`,
        `/api/mailings/${draft}/gap?path=person.first_name`,
      ],
      ...['/api/mailings/80', '/api/mailings/80/results', '/api/mailings/80/answers'],
      ...['provider', 'engagement', 'segment', 'device', 'town'].map(
        (by) => `/api/mailings/80/by?of=${by}`,
      ),
      ...[
        '/api/mailings/80/clicked',
        '/api/mailings/subject-effects',
        '/api/results',
        '/api/standing',
      ],
      ...[
        '/api/calendar?from=2026-11-01&to=2026-12-05',
        '/api/calendar/load?from=2026-11-01&to=2026-12-05',
      ],
      ...['/api/sequences', '/api/data-out', '/api/letterhead', '/api/stamps', '/api/templates'],
      ...['/api/pictures', '/api/clock', '/api/users', '/api/tokens', '/api/standing/domain'],
    ],
  }
}
