import { randomBytes } from 'node:crypto'
import type { Selectable } from 'kysely'
import { all, one, q, run, type Database } from '../query'
import { seal, unseal } from '../sealed'
import type { Schema } from '../schema'

export type WebhookCall = Selectable<Schema['webhook_calls']>

/** The key that signs what goes to a sign-up's webhook; made when it is asked for first. */
export function hookKey(db: Database, signUpId: number): string {
  const found = q.selectFrom('sign_ups').select('hook_key').where('id', '=', signUpId)
  const sealed = one(db, found)?.hook_key
  if (sealed) return unseal(db, sealed)
  const key = randomBytes(24).toString('base64url')
  const set = { hook_key: seal(db, key) }
  run(db, q.updateTable('sign_ups').set(set).where('id', '=', signUpId))
  return key
}

/** Keeps what a program is to be told; due at once. */
export function addCall(
  db: Database,
  call: { signUpId: number; personId: number; url: string; body: object },
  now: number,
) {
  const values = {
    ...{ sign_up_id: call.signUpId, person_id: call.personId, url: call.url },
    ...{ body: JSON.stringify(call.body), at: now, due: now },
  }
  run(db, q.insertInto('webhook_calls').values(values))
}

/** The ids of calls that are due, those first that have been the longest. */
export function callsDue(db: Database, now: number, limit: number): number[] {
  const due = q.selectFrom('webhook_calls').select('id').where('due', '<=', now)
  return all(db, due.orderBy('due').limit(limit)).map(({ id }) => id)
}

export function callById(db: Database, id: number): WebhookCall | undefined {
  return one(db, q.selectFrom('webhook_calls').selectAll().where('id', '=', id))
}

/** What came of a try: taken; or when it is tried again, null: given up. */
export function callTried(
  db: Database,
  call: Pick<WebhookCall, 'id' | 'tries'>,
  of: { taken: boolean; answer: string; due: number | null },
  now: number,
) {
  const set = {
    ...{ due: of.due, taken: Number(of.taken), answer: of.answer.slice(0, 300) },
    ...{ tries: call.tries + 1, tried_at: now },
  }
  run(db, q.updateTable('webhook_calls').set(set).where('id', '=', call.id))
}

/** Sends a call of a sign-up once more, now; whether there is such a call. */
export function callAgain(db: Database, signUpId: number, id: number, now: number): boolean {
  const again = q
    .updateTable('webhook_calls')
    .set({ due: now, at: now, tries: 0, taken: 0 })
    .where('id', '=', id)
  return run(db, again.where('sign_up_id', '=', signUpId)).changes === 1
}

/** The last calls of a sign-up, the latest first. */
export function lastCalls(db: Database, signUpId: number, limit: number) {
  return all(
    db,
    q
      .selectFrom('webhook_calls as c')
      .innerJoin('people as p', 'p.id', 'c.person_id')
      .select(['c.id', 'c.person_id', 'p.address', 'c.at', 'c.due', 'c.tries', 'c.taken'])
      .select(['c.answer', 'c.tried_at'])
      .where('c.sign_up_id', '=', signUpId)
      .orderBy('c.id', 'desc')
      .limit(limit),
  )
}

/** Forgets calls from before a time; at most `limit`. How many. */
export function forgetOldCalls(db: Database, before: number, limit: number): number {
  const old = q.selectFrom('webhook_calls').select('id').where('at', '<', before).limit(limit)
  return run(db, q.deleteFrom('webhook_calls').where('id', 'in', old)).changes
}
