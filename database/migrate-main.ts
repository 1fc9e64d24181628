import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { closeDatabase, openDatabase } from '.'
import { sealAll } from './sealed'

/** Brings a data folder to the present form before anything is started on it, however long that takes, and says how far it is. */
const [folder] = process.argv.slice(2) as [string]
const isNew = !existsSync(join(folder, 'satchel.db'))
const db = openDatabase(folder, {
  onStep(step, of) {
    if (!isNew) console.log(`Bringing the data to the present form: step ${step} of ${of}.`)
  },
})
// What an earlier version left bare.
sealAll(db)
closeDatabase(db)
