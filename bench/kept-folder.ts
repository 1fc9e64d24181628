import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, renameSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { closeDatabase, openDatabase, type Database } from '../database'
import { createAccount } from '../database/account'
import { migrations } from '../database/migrations'

/**
 * A data folder that is made once and kept in `.data/bench` until the schema changes. `fill` writes into it by SQLite
 * itself, with the triggers that sum up what people did off: it fills `facts` as well.
 */
export function keptFolder(name: string, about: string, fill: (db: Database) => void): string {
  const shape = createHash('sha256').update(migrations.join()).digest('hex').slice(0, 8)
  const folder = join('.data', 'bench', `${name}-${shape}`)
  if (existsSync(join(folder, 'satchel.db'))) return folder
  const making = `${folder}.making`
  rmSync(making, { recursive: true, force: true })
  mkdirSync(making, { recursive: true })
  console.log(`  making ${about}; this takes some minutes once`)
  const db = openDatabase(making)
  const account = {
    name: 'Bench',
    zone: 'Europe/London',
    currency: 'GBP',
    sender_name: 'Bench',
    sender_address: 'hello@bench.example',
    postal_address: '',
    pace_per_minute: null,
  }
  createAccount(db, account, 0)
  const { sqlite } = db
  const triggers = sqlite
    .prepare("select name, sql from sqlite_master where type = 'trigger' and name like 'facts_%'")
    .all() as { name: string; sql: string }[]
  for (const { name: trigger } of triggers) sqlite.exec(`drop trigger ${trigger}`)
  sqlite.pragma('synchronous = OFF')
  sqlite.pragma('temp_store = MEMORY')
  fill(db)
  for (const { sql } of triggers) sqlite.exec(sql)
  sqlite.pragma('wal_checkpoint(TRUNCATE)')
  closeDatabase(db)
  renameSync(making, folder)
  return folder
}
