import { all, one, q, run, type Database } from '../query'
import { sendingFrom, type Sending } from './sendings'

/** Sendings of one form of which the team is to be told now, the earliest first; none where nobody is. */
export function sendingsToTell(db: Database, now: number, limit: number): Sending[] {
  const due = q.selectFrom('sign_up_sendings').selectAll().where('tell_due', '<=', now)
  const first = one(db, due.orderBy('tell_due').limit(1))
  if (!first) return []
  const same = due
    .where('sign_up_id', '=', first.sign_up_id)
    .where('version', '=', first.version)
    .orderBy('id')
    .limit(limit)
  return all(db, same).map(sendingFrom)
}

/** The team was told of them, or (`due`) is to be told later. */
export function sendingsTold(db: Database, ids: readonly number[], due: number | null) {
  run(db, q.updateTable('sign_up_sendings').set({ tell_due: due }).where('id', 'in', ids))
}
