import { sql } from 'kysely'
import { totalOf } from '../../core/counting'
import { HOUR } from '../../core/time'
import { all, one, q, type Database } from '../query'

/**
 * Mailings of the same list that were sent before one, the latest first, with what had come of them at an age: ms since
 * they began; in all, where it is null.
 */
export function earlierTotals(
  db: Database,
  mailing: { id: number; list_id: number | null; started_at: number | null },
  limit: number,
  age: number | null,
) {
  return all(
    db,
    totalsAtAge(age)
      .where('mailings.list_id', '=', mailing.list_id)
      .where('mailings.sequence_id', 'is', null)
      .where('mailings.state', '=', 'sent')
      .where('mailings.started_at', '<', mailing.started_at ?? 0)
      .orderBy('mailings.started_at', 'desc')
      .limit(limit),
  )
}

/** What had come of one mailing at an age, or has come in all; undefined where it never began. */
export function earlierSelf(db: Database, id: number, age: number | null) {
  return one(db, totalsAtAge(age).where('mailings.id', '=', id))
}

/** Mailings with their totals at an age. Opens and clicks are exact to the hour and spread evenly within it. */
function totalsAtAge(age: number | null) {
  const hours = (age ?? 0) / HOUR
  const upTo = (what: 'opens' | 'clicks') => sql<number>`(
    select coalesce(sum(${sql.ref(what)} * min(1.0, ${hours} - hour)), 0) from mailing_hours as h
    where h.mailing_id = mailings.id and h.hour < ${hours})`
  const left = sql<number>`(
    select count(*) from recipients as r
    where r.mailing_id = mailings.id and r.left_at is not null and r.left_at < mailings.started_at + ${age ?? 0})`
  return q
    .selectFrom('mailings')
    .innerJoin('mailing_totals as t', 't.mailing_id', 'mailings.id')
    .select(['mailings.id', 'mailings.name', 't.accepted', 't.complained', 't.bounced', 't.failed'])
    .select([
      age === null ? 't.opened' : upTo('opens').as('opened'),
      age === null ? 't.clicked' : upTo('clicks').as('clicked'),
      age === null ? 't.left_list' : left.as('left_list'),
    ])
}

/** What the last mailings of the same list came to, of all that were delivered; null where there were none. */
export function usualRates(
  db: Database,
  mailing: { id: number; list_id: number | null; started_at: number | null },
) {
  const earlier = earlierTotals(
    db,
    { ...mailing, started_at: mailing.started_at ?? 1e15 },
    12,
    null,
  )
  const sum = (key: 'opened' | 'clicked') => earlier.reduce((all, one) => all + one[key], 0)
  const delivered = earlier.reduce((all, one) => all + totalOf(one, 'delivered'), 0)
  return delivered === 0
    ? null
    : {
        opened: sum('opened') / delivered,
        clicked: sum('clicked') / delivered,
        mailings: earlier.length,
      }
}
