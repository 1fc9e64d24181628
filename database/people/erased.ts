import { createHmac } from 'node:crypto'
import { readAccount } from '../account'
import { one, prepared, q, run, type Database } from '../query'

/**
 * Of somebody who was erased only this is kept, so that no import brings them back: a keyed hash of
 * their address, from which nobody without this account's key can tell who it was.
 */
export function erasedHash(db: Database, normal: string): string {
  const key = Buffer.from(readAccount(db)?.token_key ?? '', 'hex')
  return createHmac('sha256', key).update(`erased\0${normal}`).digest('hex')
}

export function rememberErased(db: Database, normal: string, now: number) {
  run(
    db,
    q
      .insertInto('erased')
      .values({ hash: erasedHash(db, normal), at: now })
      .onConflict((c) => c.doNothing()),
  )
}

/** When somebody was erased last; null while nobody ever was. */
export function lastErasure(db: Database): number | null {
  return one(db, q.selectFrom('erased').select('at').orderBy('at', 'desc').limit(1))?.at ?? null
}

/** Asks whether an address was erased; costs nothing while nobody ever was. */
export function erasedAsker(db: Database): (normal: string) => boolean {
  if (!one(db, q.selectFrom('erased').select('at').limit(1))) return () => false
  const find = prepared<{ hash: string }>(db, (value) =>
    q.selectFrom('erased').select('at').where('hash', '=', value('hash')),
  )
  return (normal) => find.one({ hash: erasedHash(db, normal) }) !== undefined
}
