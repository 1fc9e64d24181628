import { createHash, randomBytes } from 'node:crypto'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { sql } from 'kysely'
import { isSealedWith, sealText, unsealText, type SealKey } from '../core/secrets'
import { all, q, run, transact, type Database } from './query'

/*
 * Secrets stand in the database sealed, by a key that stands in a file beside it and in no copy of it. The file has a key
 * a line, the present one first; earlier ones still open what they sealed.
 */

const FILE = 'seal.key'

interface Keys {
  /** Null for a database in memory, as in tests, which has a key of its own. */
  folder: string | null
  keys: readonly SealKey[]
}
const keysOf = new WeakMap<object, Keys>()

/** What was opened once, since signing and public tokens ask for the same again and again. */
const opened = new Map<string, string>()
const MOST_OPENED = 1_000

const named = (hex: string): SealKey => ({
  name: createHash('sha256').update(hex).digest('hex').slice(0, 8),
  key: Buffer.from(hex, 'hex'),
})

/** Reads the keys of a data folder for its database; makes the first where there is none and it may. */
export function takeSealKeys(db: Database, folder: string, mayMake: boolean) {
  const file = join(folder, FILE)
  if (mayMake && !existsSync(file))
    try {
      writeFileSync(file, `${randomBytes(32).toString('hex')}\n`, { mode: 0o600, flag: 'wx' })
    } catch (error) {
      // Another process was faster.
      if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error
    }
  keysOf.set(db.sqlite, { folder, keys: readKeys(folder) })
}

function readKeys(folder: string): SealKey[] {
  const file = join(folder, FILE)
  const lines = existsSync(file) ? readFileSync(file, 'latin1').split('\n') : []
  return lines.filter((line) => /^[0-9a-f]{64}$/.test(line)).map(named)
}

function keys(db: Database): readonly SealKey[] {
  const known = keysOf.get(db.sqlite)
  if (known) return known.keys
  const made = [named(randomBytes(32).toString('hex'))]
  keysOf.set(db.sqlite, { folder: null, keys: made })
  return made
}

/** The keys there are now, where a new one was taken into use since this process began. */
function keysAnew(db: Database): readonly SealKey[] {
  const known = keysOf.get(db.sqlite)
  if (known?.folder) keysOf.set(db.sqlite, { ...known, keys: readKeys(known.folder) })
  return keys(db)
}

export function seal(db: Database, text: string): string {
  const [key] = keys(db)
  if (!key) throw new Error(`There is no key to seal secrets with (${FILE} in the data folder).`)
  return sealText(text, key)
}

export function unseal(db: Database, sealed: string): string {
  const known = opened.get(sealed)
  if (known !== undefined) return known
  let text: string
  try {
    text = unsealText(sealed, keys(db))
  } catch {
    text = unsealText(sealed, keysAnew(db))
  }
  if (opened.size >= MOST_OPENED) opened.clear()
  opened.set(sealed, text)
  return text
}

/** Every column that holds secrets; a test compares it with the schema. */
export const sealedColumns = [
  ['account', 'token_key'],
  ['account', 'dkim_private_key'],
  ['trial_mailboxes', 'password'],
  ['users', 'totp_secret'],
  ['own_requests', 'secret'],
  ['sign_up_sendings', 'secret'],
  ['sign_ups', 'hook_key'],
  ['sequences', 'hook_key'],
] as const

/** Seals with the present key what is not sealed with it: what an earlier version left bare, or an earlier key sealed. */
export function sealAll(db: Database): number {
  const [present] = keys(db)
  if (!present) return 0
  return transact(db, () => {
    let changed = 0
    for (const [table, column] of sealedColumns) {
      const rows = all(
        db,
        q
          .selectFrom(table)
          .select([
            sql<number>`rowid`.as('row'),
            sql<string | null>`${sql.ref(column)}`.as('text'),
          ]),
      )
      for (const { row, text } of rows) {
        if (text === null || isSealedWith(text, present)) continue
        run(
          db,
          q
            .updateTable(table)
            .set({ [column]: seal(db, unseal(db, text)) })
            .where(sql`rowid`, '=', row),
        )
        changed++
      }
    }
    return changed
  })
}

/** Puts a new key before those there are, and seals everything with it; how many secrets those were. */
export function takeNewSealKey(db: Database, folder: string): number {
  const file = join(folder, FILE)
  const before = readFileSync(file, 'latin1')
  writeFileSync(file, `${randomBytes(32).toString('hex')}\n${before}`, { mode: 0o600 })
  takeSealKeys(db, folder, false)
  return sealAll(db)
}
