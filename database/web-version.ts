import { randomBytes } from 'node:crypto'
import type { Letter } from '../core/letters'
import { wholeLetterOf } from './letterheads'
import { one, q, run, type Database } from './query'

/** The key of a letter's web version; null while it has none. */
export function webKey(db: Database, letterId: number): string | null {
  return (
    one(db, q.selectFrom('letters').select('web_key').where('id', '=', letterId))?.web_key ?? null
  )
}

/** Gives a letter a public address, a new one each time, or takes it away. The key, or null. */
export function setWebVersion(db: Database, letterId: number, on: boolean): string | null {
  const key = on ? randomBytes(12).toString('base64url') : null
  run(db, q.updateTable('letters').set({ web_key: key }).where('id', '=', letterId))
  return key
}

/** The letter with a key, and the list of the mailing it belongs to; undefined where there is none. */
export function letterByWebKey(
  db: Database,
  key: string,
): (Letter & { list_id: number | null; letter_id: number }) | undefined {
  const found = one(
    db,
    q
      .selectFrom('letters')
      .innerJoin('mailings', 'mailings.letter_id', 'letters.id')
      .select(['letters.id', 'list_id'])
      .where('web_key', '=', key),
  )
  return found && { ...wholeLetterOf(db, found.id), list_id: found.list_id, letter_id: found.id }
}
