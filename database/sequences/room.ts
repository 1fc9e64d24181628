import { roomUnder } from '../../core/dispatch'
import { DAY } from '../../core/time'
import { frequencyCap } from '../account'
import { all, q, type Database } from '../query'
import { ownLimitsOf } from '../readers'

/**
 * Says of people from when on there is room for one more mail, by the account's frequency cap and by how much they asked for.
 * What is on its way to them counts as sent now.
 */
export function roomAt(db: Database, now: number) {
  const cap = frequencyCap(db)
  return (person: number): number => {
    const { oneInDays } = ownLimitsOf(db, person)
    const limits = [cap, oneInDays === null ? null : { mailings: 1, days: oneInDays }]
    return Math.max(
      now,
      ...limits.map((limit) =>
        limit ? roomUnder(limit, mailTimes(db, person, limit.days, now), now) : now,
      ),
    )
  }
}

function mailTimes(db: Database, person: number, days: number, now: number): number[] {
  const sent = q
    .selectFrom('recipients')
    .select('accepted_at')
    .where('person_id', '=', person)
    .where((eb) =>
      eb.or([
        eb('accepted_at', '>', now - days * DAY),
        eb('state', 'in', ['queued', 'claimed', 'deferred', 'uncertain']),
      ]),
    )
  return all(db, sent).map(({ accepted_at }) => accepted_at ?? now)
}
