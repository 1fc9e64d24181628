import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync, statSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { closeDatabase, openDatabase } from '../database'
import { addDataOut, dataOutById } from '../database/exports'
import { jobById } from '../database/jobs'
import { dataOutPath } from '../engine/data-out'
import { runJobs } from '../engine/jobs'
import { madeUpEngine } from '../engine/made-up'
import { bigMailingFolder } from './big-mailing'
import type { Measure } from './harness'

const kinds = ['opens', 'clicks'] as const

/** Five million opens and clicks taken out as a ZIP, against SQLite's own CSV dump of the same rows to files. */
export const dataExport: Measure = {
  name: 'export',
  unit: 'rows/s',
  promise: { atLeast: 0.5 },
  runs: 3,
  async run() {
    const folder = bigMailingFolder()
    const db = openDatabase(folder)
    const engine = madeUpEngine(db)
    const choice = {
      ...{ mailings: [], kinds: [...kinds], days: null, from: null, to: null },
      ...{ unique: false, active: true, separator: ',', quote: '"' as const },
    }
    const began = performance.now()
    const id = addDataOut(db, choice, engine.time.now)
    await runJobs(engine)
    const took = (performance.now() - began) / 1000
    const out = dataOutById(db, id)!
    if (jobById(db, out.job_id!)!.state !== 'done') throw new Error('The data was not taken out.')
    const counts = JSON.parse(out.counts!) as Record<string, number>
    const rows = kinds.reduce((sum, kind) => sum + counts[kind]!, 0)
    const megabytes = Math.round(statSync(dataOutPath(engine.settings.data, id)).size / 2 ** 20)
    closeDatabase(db)
    const plain = mkdtempSync(join(tmpdir(), 'satchel-bench-'))
    const dumped = dump(join(folder, 'satchel.db'), plain)
    rmSync(plain, { recursive: true })
    rmSync(engine.settings.data, { recursive: true })
    return { ours: rows / took, reference: rows / dumped, notes: { rows, megabytes } }
  },
}

/** Writes the same columns by SQLite's own program; how long it took, s. */
function dump(database: string, folder: string): number {
  const began = performance.now()
  for (const kind of kinds) {
    const link =
      kind === 'clicks'
        ? ', (select url from mailing_links l where l.mailing_id = a.mailing_id and l.no = a.link), (select words from mailing_links l where l.mailing_id = a.mailing_id and l.no = a.link)'
        : ''
    const query = `select m.name, p.address, strftime('%Y-%m-%dT%H:%M:%fZ', a.at / 1000.0, 'unixepoch'), a.verdict, g.text${link} from acts a join mailings m on m.id = a.mailing_id join people p on p.id = a.person_id join agents g on g.id = a.agent_id where a.kind = '${kind.slice(0, -1)}' order by a.id;`
    const done = spawnSync('sqlite3', ['-readonly', '-csv', database], {
      input: `.once ${join(folder, `${kind}.csv`)}\n${query}\n`,
    })
    if (done.error || done.status !== 0)
      throw new Error('The reference needs the program sqlite3; install it first.')
  }
  return (performance.now() - began) / 1000
}
