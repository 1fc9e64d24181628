import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import Papa from 'papaparse'
import { closeDatabase, openDatabase } from '../database'
import { addList } from '../database/people'
import { wordingId } from '../database/wordings'

/** Inserts the rows of FOLDER/people.csv, parsed before the time is taken, in batches of 1,000. */
const folder = process.argv[2]!
const rows = Papa.parse<string[]>(readFileSync(join(folder, 'people.csv'), 'utf8')).data.slice(
  1,
  -1,
)
const ready = rows.map(([mail, first, last, town, since, flies, till, wants]) => ({
  mail,
  first,
  last,
  fields: JSON.stringify({ town, member_since: since, flies: flies!.split('|'), till_no: till }),
  wants: wants === 'yes',
}))
const db = openDatabase(join(folder, 'reference'), { durable: true })
const list = addList(db, { name: 'wants', description: '' }, 0)
const person = db.sqlite.prepare(
  "insert into people (address, normal, domain, first_name, last_name, fields, joined_at, changed_at) values (?, ?, 'inkpost.example', ?, ?, ?, 0, 0)",
)
const subscription = db.sqlite.prepare(
  "insert into subscriptions (person_id, list_id, state, since) values (?, ?, 'subscribed', 0)",
)
const evidence = db.sqlite.prepare(
  "insert into evidence (person_id, list_id, at, state, way, wording_id) values (?, ?, 0, 'subscribed', 'import', ?)",
)
const wording = wordingId(db, 'Asked for it.')
const batch = db.sqlite.transaction((part: typeof ready) => {
  for (const row of part) {
    const { lastInsertRowid: id } = person.run(row.mail, row.mail, row.first, row.last, row.fields)
    if (!row.wants) continue
    subscription.run(id, list)
    evidence.run(id, list, wording)
  }
})
const began = performance.now()
for (let at = 0; at < ready.length; at += 1_000) batch(ready.slice(at, at + 1_000))
const seconds = (performance.now() - began) / 1000
closeDatabase(db)
console.log(JSON.stringify({ seconds }))
