import { createHash, randomBytes } from 'node:crypto'
import { sql, type Selectable } from 'kysely'
import type { ReaderLanguage } from '../../core/readers'
import { DAY, HOUR } from '../../core/time'
import { all, one, q, run, transact, type Database } from '../query'
import { seal, unseal } from '../sealed'
import type { Schema } from '../schema'
import type { OwnRequest } from './schema'

/** What a reader asked for that a mail to an address of theirs has to confirm. Its times are the host's. */
export type Request = Selectable<Schema['own_requests']>

/** No more of one person's in an hour, nor to one address in a day, whoever asks in their name. */
const AN_HOUR = 4
const A_DAY = 6
/** How long a link works; that by which an address is changed back, longer. */
const WORKS_FOR = HOUR
const CAN_BE_CHANGED_BACK_FOR = 14 * DAY

/** Keeps a request whose link is mailed to `sentTo`; whether it was taken: not where there were too many already. */
export function askOwn(
  db: Database,
  asked: {
    personId: number
    kind: OwnRequest
    sentTo: string
    address?: string
    language: ReaderLanguage
    mailingId: number | null
  },
  now: number,
): boolean {
  return transact(db, () => {
    const since = (column: 'person_id' | 'sent_to', value: number | string, from: number) =>
      one(
        db,
        q
          .selectFrom('own_requests')
          .select((eb) => eb.fn.countAll<number>().as('n'))
          .where(column, '=', value)
          .where('asked_at', '>', from),
      )!.n
    if (since('person_id', asked.personId, now - HOUR) >= AN_HOUR) return false
    if (since('sent_to', asked.sentTo, now - DAY) >= A_DAY) return false
    const secret = randomBytes(24).toString('base64url')
    run(
      db,
      q.insertInto('own_requests').values({
        person_id: asked.personId,
        kind: asked.kind,
        hash: hashOf(secret),
        secret: seal(db, secret),
        sent_to: asked.sentTo,
        address: asked.address ?? null,
        language: asked.language,
        mailing_id: asked.mailingId,
        asked_at: now,
        until: now + (asked.kind === 'address-back' ? CAN_BE_CHANGED_BACK_FOR : WORKS_FOR),
        send_due: now,
      }),
    )
    return true
  })
}

/** The request that a mailed link is of; null where it was used, or its time has passed. */
export function requestOf(db: Database, secret: string, now: number): Request | null {
  const found = q
    .selectFrom('own_requests')
    .selectAll()
    .where('hash', '=', hashOf(secret))
    .where('used_at', 'is', null)
    .where('until', '>', now)
  return one(db, found) ?? null
}

/** Everything somebody asked for so, the latest first. */
export function requestsOf(db: Database, personId: number): Request[] {
  const asked = q.selectFrom('own_requests').selectAll().where('person_id', '=', personId)
  return all(db, asked.orderBy('id', 'desc'))
}

/** Nothing is kept of what was asked for an address, whoever asked. */
export function forgetRequestsTo(db: Database, normal: string) {
  run(db, q.deleteFrom('own_requests').where(sql`lower(sent_to)`, '=', normal))
}

/** Uses a request up, once; whether it was still there. In the transaction that carries it out. */
export function useRequest(db: Database, id: number, now: number): boolean {
  const use = q.updateTable('own_requests').set({ used_at: now }).where('id', '=', id)
  return run(db, use.where('used_at', 'is', null)).changes === 1
}

/** The next request whose link is to be mailed, with its secret. */
export function nextRequestToMail(
  db: Database,
  now: number,
): (Request & { secret: string }) | null {
  const due = q
    .selectFrom('own_requests')
    .selectAll()
    .where('send_due', '<=', now)
    .orderBy('send_due')
    .limit(1)
  const found = one(db, due)
  return found ? { ...found, secret: unseal(db, found.secret!) } : null
}

/** Its mail has gone out; the secret is in it alone from now on. */
export function requestMailed(db: Database, id: number) {
  const set = { send_due: null, secret: null, answer: null }
  run(db, q.updateTable('own_requests').set(set).where('id', '=', id))
}

/** Its mail could not go out, for a reason: tried again at `due`; null: given up. */
export function requestNotMailed(db: Database, id: number, answer: string, due: number | null) {
  run(
    db,
    q
      .updateTable('own_requests')
      .set((eb) => ({
        send_due: due,
        tries: eb('tries', '+', 1),
        answer: answer.slice(0, 500),
        ...(due === null ? { secret: null } : {}),
      }))
      .where('id', '=', id),
  )
}

const hashOf = (secret: string) => createHash('sha256').update(secret).digest('hex')
