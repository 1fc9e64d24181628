import type { SequenceDays } from '../../core/results'
import type { Day } from '../../core/time'
import { readAccount } from '../account'
import { all, q, type Database } from '../query'
import { eachMailAhead } from '../sequences'
import { daysBetween } from './days'
import { eachAccepted, eachWaiting } from './load'

/**
 * The mail of each sequence by days of the account's zone: what was accepted, and what those who are inside are still to get
 * as things stand. Of some sequences, in their order.
 */
export function sequenceDays(
  db: Database,
  ids: readonly number[],
  { from, to }: { from: Day; to: Day },
  now: number,
): SequenceDays[] {
  if (ids.length === 0) return []
  const days = daysBetween(from, to, readAccount(db)?.zone ?? 'UTC')
  const none = () => new Array<number>(days.many).fill(0)
  const found = new Map(
    ids.map((id) => [id, { id, from: days.begin, sent: none(), coming: none() }]),
  )
  const count = (id: number, what: 'sent' | 'coming', at: number) => {
    const [day, of] = [days.dayAt(at), found.get(id)]
    if (day !== null && of) of[what][day]!++
  }
  const mailings = all(
    db,
    q.selectFrom('mailings').select(['id', 'sequence_id']).where('sequence_id', 'in', ids),
  )
  for (const mailing of mailings) {
    const of = mailing.sequence_id!
    eachAccepted(db, mailing, days.begin, days.end, (_, at) => count(of, 'sent', at))
    eachWaiting(db, mailing, now, (_, at) => count(of, 'coming', at))
  }
  eachMailAhead(db, now, days.end, (_, at, isHeld, id) => {
    if (!isHeld) count(id, 'coming', at)
  })
  return [...found.values()]
}
