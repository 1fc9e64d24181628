import { existsSync } from 'node:fs'
import { join } from 'node:path'
import Sqlite from 'better-sqlite3'

/** Copies a data folder's database to a file with SQLite's online backup, while others write to it. */
const [folder, file] = process.argv.slice(2) as [string, string]
const from = join(folder, 'satchel.db')
if (!existsSync(from)) {
  console.error(`There is no Satchel in ${folder}. Name its data folder with SATCHEL_DATA.`)
  process.exit(1)
}
// Readable by whoever makes it alone.
process.umask(0o077)
const sqlite = new Sqlite(from, { readonly: true })
await sqlite.backup(file)
sqlite.close()
const copy = new Sqlite(file, { readonly: true })
const verdict = copy.pragma('quick_check', { simple: true })
const people = copy.prepare('select count(*) from people').pluck().get() as number
copy.close()
if (verdict !== 'ok') {
  console.error(`The copy in ${file} is damaged: ${String(verdict)}`)
  process.exit(1)
}
console.log(`Backed up to ${file}: ${people.toLocaleString('en-GB')} people.`)
console.log(
  'Not in it: seal.key and the *.secret files of the data folder, without which mailboxes, DKIM and public links can’t be read (keep them apart from the copy); exports (data-out), which can be made again; and files that wait to be imported (imports).',
)
