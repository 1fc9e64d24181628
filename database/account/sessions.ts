import { createHash, randomBytes } from 'node:crypto'
import { sessionEnds } from '../../core/team'
import { all, one, q, run, type Database } from '../query'

/** A session as its user sees it. */
export interface Session {
  id: number
  user_id: number
  began_at: number
  used_at: number
  /** When the password was last given in it. */
  confirmed_at: number
  device: string
  /** The address that it was last used from. */
  address: string
}

interface From {
  device: string
  address: string
}

/** How often it is written down that a session is used, ms. */
const NOTE_USE = 60_000

const hashOf = (key: string) => createHash('sha256').update(key).digest('hex')
const columns = [
  'id',
  'user_id',
  'began_at',
  'used_at',
  'confirmed_at',
  'device',
  'address',
] as const

/** Begins a session; its key, which is kept nowhere but with the browser. `now` is the host's clock. */
export function beginSession(db: Database, userId: number, from: From, now: number): string {
  const key = randomBytes(32).toString('base64url')
  run(
    db,
    q.insertInto('sessions').values({
      hash: hashOf(key),
      user_id: userId,
      began_at: now,
      used_at: now,
      confirmed_at: now,
      ...from,
    }),
  )
  return key
}

/** The session of a key, or null where there is none or it is over; notes that it is used. */
export function useSessionOf(db: Database, key: string, from: From, now: number): Session | null {
  const session = one(db, q.selectFrom('sessions').select(columns).where('hash', '=', hashOf(key)))
  if (!session || isOver(session, now)) return null
  if (now - session.used_at >= NOTE_USE || session.address !== from.address)
    run(
      db,
      q
        .updateTable('sessions')
        .set({ used_at: now, ...from })
        .where('id', '=', session.id),
    )
  return session
}

const isOver = ({ began_at, used_at }: Session, now: number) =>
  now >= sessionEnds({ began: began_at, used: used_at })

/** The password was given in it. */
export function confirmSession(db: Database, id: number, now: number) {
  run(db, q.updateTable('sessions').set({ confirmed_at: now }).where('id', '=', id))
}

/** The sessions of a user that go on, the last used first. */
export function sessionsOf(db: Database, userId: number, now: number): Session[] {
  const theirs = q.selectFrom('sessions').select(columns).where('user_id', '=', userId)
  return all(db, theirs.orderBy('used_at', 'desc')).filter((session) => !isOver(session, now))
}

/** Whether a session was not ended. */
export function sessionGoesOn(db: Database, userId: number, id: number): boolean {
  const it = q.selectFrom('sessions').select('id').where('id', '=', id)
  return one(db, it.where('user_id', '=', userId)) !== undefined
}

/** Ends one of a user's sessions; whether there was one. */
export function endSession(db: Database, userId: number, id: number): boolean {
  const it = q.deleteFrom('sessions').where('user_id', '=', userId).where('id', '=', id)
  return run(db, it).changes === 1
}

/** Ends all of a user's sessions, but for one; how many those were. */
export function endSessionsOf(db: Database, userId: number, but: number | null = null): number {
  const theirs = q.deleteFrom('sessions').where('user_id', '=', userId)
  return run(db, but === null ? theirs : theirs.where('id', '!=', but)).changes
}

/** Forgets the sessions that are over. */
export function forgetOverSessions(db: Database, now: number): void {
  for (const session of all(db, q.selectFrom('sessions').select(columns)))
    if (isOver(session, now)) run(db, q.deleteFrom('sessions').where('id', '=', session.id))
}
