import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { closeDatabase, openDatabase } from '.'
import { takeNewSealKey } from './sealed'

/** Takes a new key into use by which the secrets of a data folder are sealed: new-key.mjs FOLDER */
const [folder] = process.argv.slice(2) as [string]
if (!existsSync(join(folder, 'satchel.db'))) {
  console.error(`There is no Satchel in ${folder}. Name its data folder with SATCHEL_DATA.`)
  process.exit(1)
}
const db = openDatabase(folder)
const many = takeNewSealKey(db, folder)
closeDatabase(db)
console.log(
  `${many} secrets are sealed with a new key, the first in ${join(folder, 'seal.key')}. Earlier keys stay in it for the backups they open; remove their lines when those are gone.`,
)
