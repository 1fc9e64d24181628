import { sql } from 'kysely'
import { sumSql, totalSql } from '../../core/counting'
import { HOUR } from '../../core/time'
import { all, q, raw, type Database } from '../query'

/** Every mail of sequences that somebody was to get, by sequence and in the order they were made, with what came of it. */
export function sequenceMails(db: Database) {
  return all(
    db,
    q
      .selectFrom('mailings')
      .innerJoin('sequences', 'sequences.id', 'mailings.sequence_id')
      .innerJoin('letters', 'letters.id', 'mailings.letter_id')
      .innerJoin('mailing_totals as t', 't.mailing_id', 'mailings.id')
      .select(['mailings.id', 'mailings.name', 'mailings.started_at', 'letters.subject'])
      .select(['sequences.id as sequence_id', 'sequences.name as sequence'])
      .select(['t.accepted', 't.complained', 't.opened', 't.clicked', 't.left_list'])
      .select(totalSql('delivered').as('delivered'))
      .where('mailings.started_at', 'is not', null)
      .orderBy('sequences.name')
      .orderBy('sequences.id')
      .orderBy('mailings.id'),
  )
}

/** What was accepted of sequences' mail since a time and came of it, by the hour since then. */
export function sequenceMailByHour(db: Database, since: number) {
  return all(
    db,
    raw(sql<{ hour: number; delivered: number; opened: number; clicked: number }>`
      select (r.accepted_at - ${since}) / ${HOUR} as hour, ${sumSql('delivered')} as delivered,
        ${sumSql('opened')} as opened, ${sumSql('clicked')} as clicked
      from recipients as r
      where r.mailing_id in (select id from mailings where sequence_id is not null) and r.accepted_at >= ${since}
      group by 1`),
  )
}

/** When sequences' mail was opened since a time: how often in each hour, by its middle. */
export function sequenceOpens(db: Database, since: number) {
  return all(
    db,
    raw(sql<{ at: number; opens: number }>`
      select (r.opened_at / ${HOUR}) * ${HOUR} + ${HOUR / 2} as at, count(*) as opens
      from recipients as r
      where r.mailing_id in (select id from mailings where sequence_id is not null) and r.opened_at >= ${since}
      group by 1`),
  )
}
