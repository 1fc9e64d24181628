import { isCountedSql, totalSql } from '../../core/counting'
import { sql, type SqlBool } from 'kysely'
import { all, q, raw, type Database } from '../query'

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

/** What a provider made of the mail of some time. */
export interface ProviderMail {
  domain: string
  /** Whom it was tried to give mail to; whoever was dropped or still waits is none of them. */
  recipients: number
  delivered: number
  bounced: number
  complained: number
  deferred: number
  opened: number
  clicked: number
}

/**
 * How the mail that was accepted since a time (refused since then, or put off) fared at each mailbox provider, whatever
 * kind of mail it was, the largest first. A mailing that began since then is read from its sums;
 * of others, as those of sequences, the rows are counted that are of that time.
 */
export function providersSince(db: Database, since: number): ProviderMail[] {
  const summed = sql`
    select domain, delivered, bounced, complained, deferred, opened, clicked
    from mailing_providers where mailing_id in (select id from mailings where started_at >= ${since})`
  const counted = sql`
    select p.domain as domain, ${isCountedSql('delivered')} as delivered, ${isCountedSql('bounced')} as bounced,
      ${isCountedSql('complained')} as complained, ${isCountedSql('deferred')} as deferred,
      ${isCountedSql('opened')} as opened, ${isCountedSql('clicked')} as clicked
    from recipients as r join people as p on p.id = r.person_id
    where r.mailing_id in (
        select id from mailings where started_at < ${since}
          and (sequence_id is not null or finished_at is null or finished_at >= ${since}))
      and coalesce(r.accepted_at, r.at) >= ${since} and ${isCountedSql('tried')}`
  const sums = ['delivered', 'bounced', 'complained', 'deferred', 'opened', 'clicked'].map(
    (name) => sql`sum(${sql.ref(name)}) as ${sql.ref(name)}`,
  )
  const rows = sql<ProviderMail>`
    select domain, sum(delivered) + sum(bounced) + sum(deferred) as recipients, ${sql.join(sums)}
    from (${summed} union all ${counted}) where domain <> '' group by domain
    having recipients > 0 order by recipients desc, domain limit 12`
  return all(db, raw(rows))
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
