import { all, one, q, run, type Database } from '../query'

/** Something that somebody did. */
export interface Deed {
  userId: number | null
  userName: string
  did: string
  /** What it was done to, as a path: `/mailings/12`. */
  what: string
  /** From where: the address, and what the browser said of itself. */
  address: string
  device: string
}

/** Notes a deed, at the host's time. With `within`, only where the same was not noted for so long, ms. */
export function noteDeed(db: Database, deed: Deed, now: number, within = 0) {
  if (within && isNoted(db, deed, now - within)) return
  run(
    db,
    q.insertInto('audit').values({
      at: now,
      user_id: deed.userId,
      user_name: deed.userName,
      did: deed.did,
      what: deed.what,
      address: deed.address,
      device: deed.device,
    }),
  )
}

function isNoted(db: Database, { userId, did, what }: Deed, since: number): boolean {
  return (
    one(
      db,
      q
        .selectFrom('audit')
        .select('id')
        .where('at', '>', since)
        .where('user_id', 'is', userId)
        .where('did', '=', did)
        .where('what', '=', what)
        .limit(1),
    ) !== undefined
  )
}

/** The log, the latest first, before an entry (null: from the latest on). */
export function auditLog(db: Database, before: number | null, most: number) {
  const rows = q.selectFrom('audit').selectAll().orderBy('id', 'desc').limit(most)
  return all(db, before === null ? rows : rows.where('id', '<', before))
}
