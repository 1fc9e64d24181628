import { one, q, run, type Database } from '../query'
import { unseal } from '../sealed'
import { sendingFrom, type Sending } from './sendings'
import type { SignUpMail } from './schema'

/** The next sending to which a mail is due, with the secret of its link. */
export function nextSendingToMail(
  db: Database,
  now: number,
): (Sending & { mail: SignUpMail; secret: string }) | null {
  const due = q
    .selectFrom('sign_up_sendings')
    .selectAll()
    .where('send_due', '<=', now)
    .orderBy('send_due')
    .limit(1)
  const row = one(db, due)
  if (!row?.mail) return null
  return {
    ...sendingFrom(row),
    mail: row.mail,
    secret: row.secret === null ? '' : unseal(db, row.secret),
  }
}

/** A mail has gone out. The link’s secret is kept only while a reminder with it may follow. */
export function sendingMailed(db: Database, { id, state, mailed }: Sending, now: number) {
  const over = state === 'pending' ? {} : { secret: null }
  const set = { send_due: null, answer: null, mailed: mailed + 1, mailed_at: now, ...over }
  run(db, q.updateTable('sign_up_sendings').set(set).where('id', '=', id))
}

/** A mail could not go out, for a reason: tried again at `due`; null: given up. */
export function sendingNotMailed(db: Database, id: number, answer: string, due: number | null) {
  run(
    db,
    q
      .updateTable('sign_up_sendings')
      .set((eb) => ({
        send_due: due,
        tries: eb('tries', '+', 1),
        answer: answer.slice(0, 500),
        // Where the first is refused for good, a reminder would be, too.
        ...(due === null ? { remind_due: null } : {}),
      }))
      .where('id', '=', id),
  )
}
