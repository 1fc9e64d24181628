import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import Sqlite from 'better-sqlite3'
import { deviceOf, programOf } from '../core/counting'
import { slotOf, type SlotUse } from '../core/experiments'
import { languageOf } from '../core/people'
import { fold } from '../core/segments'
import { migrate } from './migrations'
import { keepPrivate } from './private'
import type { Database } from './query'
import { takeSealKeys } from './sealed'

/**
 * Opens the database of a data folder, making and migrating it where needed. Several processes may
 * do this at once: migrations run one at a time, under SQLite's own lock.
 * With `durable` every commit is on the disk before it returns, not only safe from a killed process.
 * With `reading` nothing but temporary tables can be written.
 */
export function openDatabase(
  folder: string,
  options: {
    durable?: boolean
    reading?: boolean
    /** Is told before each step of a migration: which, and how many there are. */
    onStep?: (step: number, of: number) => void
  } = {},
): Database {
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  keepPrivate(folder)
  const sqlite = new Sqlite(join(folder, 'satchel.db'), { readonly: options.reading ?? false })
  if (!options.reading) sqlite.pragma('journal_mode = WAL')
  sqlite.pragma('busy_timeout = 10000')
  sqlite.pragma('foreign_keys = ON')
  sqlite.pragma(`synchronous = ${options.durable ? 'FULL' : 'NORMAL'}`)
  // The engine goes through its rows in their order; what it has read and written it hardly needs again.
  sqlite.pragma(`cache_size = -${options.durable ? 24_000 : 64_000}`)
  if (options.reading) {
    sqlite.pragma('temp_store = MEMORY')
    sqlite.pragma('cache_size = -256000')
  } else {
    limitSize(sqlite)
    migrate(sqlite, undefined, options.onStep)
  }
  addFunctions(sqlite)
  const db = { sqlite, statements: new Map() }
  takeSealKeys(db, folder, !options.reading)
  return db
}

/** The database grows to so many MB and no further, where that is set: what is over is refused as on a full disk. */
function limitSize(sqlite: Sqlite.Database) {
  const most = Number(process.env.SATCHEL_MOST_MB || 0)
  if (!(most > 0)) return
  const page = sqlite.pragma('page_size', { simple: true }) as number
  sqlite.pragma(`max_page_count = ${Math.max(1, Math.floor((most * 1_048_576) / page))}`)
}

/** A database in memory, for tests. Made once, and copied from then on: the steps take far longer than most tests. */
export function openMemory(): Database {
  empty ??= makeEmpty()
  const sqlite = new Sqlite(empty)
  sqlite.pragma('foreign_keys = ON')
  addFunctions(sqlite)
  return { sqlite, statements: new Map() }
}

let empty: Buffer | undefined
function makeEmpty(): Buffer {
  const sqlite = new Sqlite(':memory:')
  migrate(sqlite)
  const bytes = sqlite.serialize()
  sqlite.close()
  return bytes
}

/** What rules and parts of mailings need and SQLite does not have. */
function addFunctions(sqlite: Sqlite.Database) {
  sqlite.function('fold', { deterministic: true }, (text: unknown) =>
    typeof text === 'string' ? fold(text) : null,
  )
  sqlite.function('device_of', { deterministic: true }, (agent) => deviceOf(String(agent)))
  sqlite.function('program_of', { deterministic: true }, (agent) => programOf(String(agent)))
  sqlite.function('language_of', { deterministic: true }, (said, domain) =>
    languageOf(said, String(domain)),
  )
  sqlite.function('slot_of', { deterministic: true }, (use, mailing, person) =>
    slotOf(use as SlotUse, Number(mailing), Number(person)),
  )
}

export function closeDatabase(db: Database) {
  db.statements.clear()
  db.sqlite.close()
}
