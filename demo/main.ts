import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { hashPassword } from '../cases/team'
import { all, closeDatabase, openDatabase, q } from '../database'
import { addApiToken } from '../database/imports'
import { makeAccount } from './account'
import { addDeeds } from './deeds'
import { makeTasks } from './tasks'
import { siteForms } from './site-forms'
import { addTrialMailboxes } from './trial-mailboxes'
import { publishedZone } from './zone'

/** The password of everybody in the demo; `npm run demo` prints it. */
const DEMO_PASSWORD = 'a fair wind for kites'

/** Makes the demo account in a data folder: demo.mjs FOLDER [--size N] [--seed N] [--now MS] */
const [folder, ...rest] = process.argv.slice(2)
if (!folder) throw new Error('Say which data folder.')
const option = (name: string, otherwise: number) => {
  const at = rest.indexOf(`--${name}`)
  return at >= 0 ? Number(rest[at + 1]) : otherwise
}
const size = option('size', 12_100)
const began = performance.now()
const db = openDatabase(folder)
await makeAccount(db, {
  seed: option('seed', 47),
  size,
  now: option('now', Date.now()),
  passwordHash: await hashPassword(DEMO_PASSWORD),
})
addDeeds(db, Date.now())
makeTasks(db, option('now', Date.now()))
addTrialMailboxes(db, Number(process.env.WORLD_IMAP_PORT || 4543), option('now', Date.now()))
const { token } = addApiToken(db, 'Practice shop', option('now', Date.now()))
const customers = all(db, q.selectFrom('people').select('normal').orderBy('id').limit(50_000))
const forms = JSON.stringify(siteForms(db), null, 2)
const zone = JSON.stringify(publishedZone(db), null, 2)
closeDatabase(db)
writeFileSync(join(folder, 'shop.secret'), token, { mode: 0o600 })
writeFileSync(
  join(folder, 'customers.txt'),
  customers.map(({ normal }) => `${normal}\n`).join(''),
  {
    mode: 0o600,
  },
)
writeFileSync(join(folder, 'site-forms.json'), forms)
writeFileSync(join(folder, 'zone.json'), zone, { mode: 0o600 })
writeFileSync(join(folder, 'made'), `${size}\n`)
console.log(
  `Made the demo account: ${size.toLocaleString('en-GB')} people in ${((performance.now() - began) / 1000).toFixed(1)} s.`,
)
