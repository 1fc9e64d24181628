import { readFileSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { understandFile } from '../core/people'
import { closeDatabase, openDatabase } from '../database'
import { createImport, importById, updateImport } from '../database/imports'
import { addJob } from '../database/jobs'
import { readFields, addList, listsWithCounts } from '../database/people'
import { runJobs } from '../engine/jobs'
import { madeUpEngine } from '../engine/made-up'
import { keepHeapSteady } from '../engine/steady-heap'

/** Imports the COUNT rows of FOLDER/people.csv as the engine does; prints the time and the most memory it took. */
const [folder, rows] = process.argv.slice(2) as [string, string]
const path = join(folder, 'people.csv')
keepHeapSteady()
const db = openDatabase(join(folder, 'ours'), { durable: true })
const listId = addList(db, { name: 'wants', description: '' }, 0)
const head = readFileSync(path).subarray(0, 100_000)
const file = understandFile(head, statSync(path).size, {
  fields: readFields(db),
  lists: listsWithCounts(db),
})
if ('problem' in file) throw new Error(file.message)
const importId = createImport(
  db,
  {
    name: 'people.csv',
    path,
    size: statSync(path).size,
    encoding: file.encoding,
    delimiter: file.delimiter,
    plans: file.plans,
    listId,
    statement: 'Asked for it.',
  },
  0,
)
updateImport(db, importId, { job_id: addJob(db, 'import', { importId }, 0) })
const began = performance.now()
const made = madeUpEngine(db, { data: folder })
await runJobs({ ...made, clock: Date.now, hostClock: Date.now })
const seconds = (performance.now() - began) / 1000
const done = importById(db, importId)!
if (done.state !== 'done' || done.added !== Number(rows))
  throw new Error(`${done.state}, ${done.added} added`)
closeDatabase(db)
console.log(JSON.stringify({ seconds, peakMb: process.resourceUsage().maxRSS / 1024 }))
