import { randomBytes } from 'node:crypto'
import { sql } from 'kysely'
import { one, q, raw, run, type Database } from '../query'

/** The key of a letter's web version; null while it has none. */
export function webKey(db: Database, letterId: number): string | null {
  return (
    one(db, q.selectFrom('letters').select('web_key').where('id', '=', letterId))?.web_key ?? null
  )
}

/** Gives a letter a public address, a new one each time, or takes it away. The key, or null. */
export function setWebVersion(db: Database, letterId: number, on: boolean): string | null {
  const key = on ? randomBytes(16).toString('base64url') : null
  run(db, q.updateTable('letters').set({ web_key: key }).where('id', '=', letterId))
  return key
}

/** The mailing whose letter has a key; undefined where there is none. */
export function letterByWebKey(db: Database, key: string): { mailing_id: number } | undefined {
  return one(
    db,
    q
      .selectFrom('letters')
      .innerJoin('mailings', 'mailings.letter_id', 'letters.id')
      .select('mailings.id as mailing_id')
      .where('web_key', '=', key),
  )
}

/** What the web version with a key is made of, as a mark that changes when any of it does; null where there is none. */
export function webMark(db: Database, key: string): string | null {
  const found = one(
    db,
    q
      .selectFrom('letters')
      .innerJoin('mailings', 'mailings.letter_id', 'letters.id')
      .leftJoin('mailing_contents as c', (join) =>
        join.onRef('c.mailing_id', '=', 'mailings.id').on('c.no', '=', 0),
      )
      .select([
        'letters.id',
        'letters.version',
        'letters.letterhead_id',
        'mailings.list_id',
        'c.hash',
      ])
      .where('web_key', '=', key),
  )
  if (!found) return null
  // What has begun never changes.
  if (found.hash !== null) return found.hash
  const looks = one(
    db,
    raw(
      sql<{ of: string }>`select json_array(
        (select letterhead || postal_address || sender_name from account),
        (select look || coalesce(deleted_at, '') from letterheads where id = ${found.letterhead_id}),
        (select public_name from lists where id = ${found.list_id}),
        (select group_concat(id || '.' || version || '.' || coalesce(deleted_at, '')) from stamps)) as "of"`,
    ),
  )!
  return `${found.id} ${found.version} ${looks.of}`
}
