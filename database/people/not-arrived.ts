import { deadAfter, failures, type Failure } from '../../core/delivery'
import { DAY } from '../../core/time'
import { all, q, type Database } from '../query'
import { isSuppressed } from './changes'
import { suppress } from './subscriptions'

/**
 * What follows for a person to whom a message did not arrive: a dead address is suppressed, and so is one to which several
 * in a row did not arrive over some time. In the transaction in which the recipient's state is written, after it.
 */
export function followFailure(
  db: Database,
  personId: number,
  failure: Failure,
  answer: string,
  now: number,
) {
  const { leadsTo, words } = failures[failure]
  if (leadsTo === 'suppress') suppress(db, personId, 'bounced', answer || words, now)
  if (leadsTo !== 'row' || isSuppressed(db, personId)) return
  const row = failuresInARow(db, personId)
  const span = row.length ? row[0]!.at - row.at(-1)!.at : 0
  if (row.length < deadAfter.mailings || span < deadAfter.days * DAY) return
  const days = Math.floor(span / DAY)
  const detail = `${row.length} mailings in a row did not arrive, over ${days} days. The last: ${words}`
  suppress(db, personId, 'bounced', detail, now)
}

/**
 * The mailings that did not arrive since one last did, the newest first. One that failed for its own sake or its sender's
 * says nothing of the address: it neither counts nor ends the row.
 */
function failuresInARow(db: Database, personId: number): { at: number }[] {
  const mail = all(
    db,
    q
      .selectFrom('recipients')
      .select((eb) => ['failure', eb.fn.coalesce('accepted_at', 'first_attempt_at', 'at').as('at')])
      .where('person_id', '=', personId)
      .where('state', 'in', ['accepted', 'complained', 'failed', 'bounced']),
  ).sort((a, b) => b.at - a.at)
  const row: { at: number }[] = []
  for (const { failure, at } of mail) {
    if (failure === null) break
    if (failures[failure].leadsTo !== 'nothing') row.push({ at })
  }
  return row
}
