import { totalOf, totalSql } from '../../core/counting'
import { sql, type SqlBool } from 'kysely'
import { all, one, q, type Database } from '../query'

/** Opens and clicks an hour since the start, from the roll-up. */
export function hoursOf(db: Database, mailingId: number) {
  return all(
    db,
    q
      .selectFrom('mailing_hours')
      .select(['hour', 'opens', 'clicks'])
      .where('mailing_id', '=', mailingId)
      .orderBy('hour'),
  )
}

/** A mailing's links with how many people followed each, and how often. */
export function linkClicks(db: Database, mailingId: number) {
  return all(
    db,
    q
      .selectFrom('mailing_links as l')
      .leftJoin('mailing_link_totals as t', (join) =>
        join.onRef('t.mailing_id', '=', 'l.mailing_id').onRef('t.no', '=', 'l.no'),
      )
      .select((eb) => [
        'l.no',
        'l.url',
        'l.words',
        'l.block_id',
        eb.fn.coalesce('t.people', eb.lit(0)).as('people'),
        eb.fn.coalesce('t.clicks', eb.lit(0)).as('clicks'),
      ])
      .where('l.mailing_id', '=', mailingId)
      .orderBy('l.no'),
  )
}

/** Why messages were refused, came back or were dropped, with counts. */
export function reasonsOf(db: Database, mailingId: number) {
  return all(
    db,
    q
      .selectFrom('recipients')
      .select(['state', 'answer', (eb) => eb.fn.countAll<number>().as('n')])
      .where('mailing_id', '=', mailingId)
      // In SQL's own words: the condition of the partial index `recipients_unlucky`.
      .where(sql<SqlBool>`state in ('failed', 'bounced', 'dropped', 'deferred', 'uncertain')`)
      .groupBy(['state', 'answer'])
      .orderBy('n', 'desc')
      .limit(40),
  )
}

/** What each provider answered to those whom it did not simply take, in words, the most frequent first. */
export function answersByProvider(db: Database, mailingId: number) {
  return all(
    db,
    q
      .selectFrom('recipients')
      .innerJoin('people', 'people.id', 'recipients.person_id')
      .select(['people.domain', 'recipients.state', 'recipients.answer'])
      .select((eb) => eb.fn.countAll<number>().as('n'))
      .where('mailing_id', '=', mailingId)
      .where('answer', 'is not', null)
      // In SQL's own words: the condition of the partial index `recipients_unlucky`.
      .where(sql<SqlBool>`state in ('failed', 'bounced', 'dropped', 'deferred', 'uncertain')`)
      .where('state', 'in', ['failed', 'bounced', 'deferred'])
      .groupBy(['people.domain', 'recipients.state', 'recipients.answer'])
      .orderBy('n', 'desc')
      .limit(20),
  )
}

/** How mailings fared at each mailbox provider (by domain), the largest first. */
export function byProvider(db: Database, mailingIds: readonly number[]) {
  if (mailingIds.length === 0) return []
  return all(
    db,
    q
      .selectFrom('mailing_providers')
      .select((eb) => [
        'domain',
        eb.fn.sum<number>('recipients').as('recipients'),
        eb.fn.sum<number>('delivered').as('delivered'),
        eb.fn.sum<number>('bounced').as('bounced'),
        eb.fn.sum<number>('complained').as('complained'),
        eb.fn.sum<number>('deferred').as('deferred'),
        eb.fn.sum<number>('opened').as('opened'),
        eb.fn.sum<number>('clicked').as('clicked'),
      ])
      .where('mailing_id', 'in', [...mailingIds])
      .where('domain', '<>', '')
      .groupBy('domain')
      .orderBy('recipients', 'desc')
      .limit(12),
  )
}

/** Mailings of the same list that were sent before one, the latest first, with their totals. */
export function earlierTotals(
  db: Database,
  mailing: { id: number; list_id: number | null; started_at: number | null },
  limit: number,
) {
  return all(
    db,
    q
      .selectFrom('mailings')
      .innerJoin('mailing_totals as t', 't.mailing_id', 'mailings.id')
      .select([
        'mailings.id',
        'mailings.name',
        't.accepted',
        't.complained',
        't.opened',
        't.clicked',
        't.left_list',
      ])
      .where('mailings.list_id', '=', mailing.list_id)
      .where('mailings.sequence_id', 'is', null)
      .where('mailings.state', '=', 'sent')
      .where('mailings.started_at', '<', mailing.started_at ?? 0)
      .orderBy('mailings.started_at', 'desc')
      .limit(limit),
  )
}

/** Mailings that began to go out since a time. */
export function mailingsSince(db: Database, since: number): number[] {
  return all(db, q.selectFrom('mailings').select('id').where('started_at', '>=', since)).map(
    ({ id }) => id,
  )
}

/** How many joined, left and were suppressed since a time, by day number counted from `since`. */
export function growthByDay(db: Database, since: number, dayLength: number) {
  const day = (column: string) =>
    sql<number>`cast((${sql.ref(column)} - ${since}) / ${dayLength} as integer)`
  const joined = all(
    db,
    q
      .selectFrom('people')
      .select([day('joined_at').as('day'), (eb) => eb.fn.countAll<number>().as('n')])
      .where('joined_at', '>=', since)
      .groupBy('day'),
  )
  const left = all(
    db,
    q
      .selectFrom('subscriptions')
      .select([day('since').as('day'), (eb) => eb.fn.count<number>('person_id').distinct().as('n')])
      .where('state', '=', 'unsubscribed')
      .where('since', '>=', since)
      .groupBy('day'),
  )
  const aside = all(
    db,
    q
      .selectFrom('set_aside')
      .select([day('at').as('day'), (eb) => eb.fn.countAll<number>().as('n')])
      .where('at', '>=', since)
      .groupBy('day'),
  )
  return { joined, left, aside }
}

/** Recipients whose fate is not known, over all mailings. */
export function uncertainMailings(db: Database) {
  return all(
    db,
    q
      .selectFrom('mailing_totals')
      .innerJoin('mailings', 'mailings.id', 'mailing_totals.mailing_id')
      .select(['mailings.id', 'mailings.name', 'mailing_totals.uncertain'])
      .where('mailing_totals.uncertain', '>', 0),
  )
}

/** How many people of a mailing there are in each state, from the rows themselves. */
export function countRecipients(db: Database, mailingId: number): number {
  return one(
    db,
    q
      .selectFrom('recipients')
      .select((eb) => eb.fn.countAll<number>().as('n'))
      .where('mailing_id', '=', mailingId),
  )!.n
}

/** 1: the mailing `mailings` went out in variants, so that what came of it is not one subject's doing. */
export const isTest = sql<number>`exists (select 1 from mailing_variants as v where v.mailing_id = mailings.id and v.no > 0)`

/** The subjects of mailings that went out, with the share of their delivered that opened; not those of a handful. */
export function sentSubjects(db: Database): { subject: string; opened: number }[] {
  return all(
    db,
    q
      .selectFrom('mailings')
      .innerJoin('letters', 'letters.id', 'mailings.letter_id')
      .innerJoin('mailing_totals as t', 't.mailing_id', 'mailings.id')
      .select(['letters.subject', 't.opened', totalSql('delivered').as('delivered')])
      .where('mailings.state', '=', 'sent')
      .where(totalSql('delivered'), '>=', FEWEST)
      .where(isTest, '=', 0),
  ).map(({ subject, opened, delivered }) => ({ subject, opened: opened / delivered }))
}

/** A share of fewer people says little about a subject. */
const FEWEST = 50

/** What the last mailings of the same list came to, of all that were delivered; null where there were none. */
export function usualRates(
  db: Database,
  mailing: { id: number; list_id: number | null; started_at: number | null },
) {
  const earlier = earlierTotals(db, { ...mailing, started_at: mailing.started_at ?? 1e15 }, 12)
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
