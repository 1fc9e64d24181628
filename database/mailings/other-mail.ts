import { totalSql } from '../../core/counting'
import { sql } from 'kysely'
import type { PeopleFacts } from '../../core/proof'
import { HOUR, timeLabel } from '../../core/time'
import { readAccount } from '../account'
import { audienceWaterfall } from '../segments'
import { getsIt } from './foreseen'
import { audienceOf, mailingsWithTotals, type Mailing } from './mailings'
import { all, one, q, raw, type Database } from '../query'

/** As many earlier mailings say what is usual. */
const EARLIER = 8
const NEAR = 48 * HOUR

/** What the proof looks at of a mailing's people and their other mail; null where it has no audience yet. */
export function otherMailOf(db: Database, mailing: Mailing, now: number): PeopleFacts | null {
  const audience = audienceOf(db, mailing)
  if (!audience) return null
  const at = Math.max(mailing.scheduled_at ?? now, now)
  const { zone } = readAccount(db)!
  const spared = audienceWaterfall(db, audience, now).find(({ step }) => step === 'cap')?.out
  const near = mailingsWithTotals(db, { from: at - NEAR, to: at + NEAR }).filter(
    ({ id, state }) => id !== mailing.id && state !== 'draft',
  )
  return {
    earlier: earlierSizes(db, mailing),
    spared: spared ?? null,
    overlaps: near.map((other) => {
      const goes = other.started_at ?? other.scheduled_at!
      return {
        name: other.name,
        at: goes,
        when:
          goes <= now && other.started_at === null
            ? 'It is held, and may go at any time.'
            : `${goes <= now ? 'It went out' : 'It goes out'} ${timeLabel(goes, zone)}.`,
        people: shared(db, mailing, other, now),
      }
    }),
  }
}

/** How many got the last mailings to the same list and segment. */
function earlierSizes(db: Database, { id, list_id, rule }: Mailing): number[] {
  return all(
    db,
    q
      .selectFrom('mailings')
      .innerJoin('mailing_totals as t', 't.mailing_id', 'mailings.id')
      .select(totalSql('answered').as('n'))
      .where('mailings.id', '<>', id)
      .where('mailings.state', '=', 'sent')
      .where('mailings.sequence_id', 'is', null)
      .where('mailings.list_id', '=', list_id)
      .where('mailings.rule', 'is', rule)
      .orderBy('mailings.started_at', 'desc')
      .limit(EARLIER),
  ).map(({ n }) => n)
}

/** How many who would get a mailing got another one, or would, too. */
function shared(db: Database, mailing: Mailing, other: Mailing, now: number): number {
  return one(
    db,
    raw(sql<{ n: number }>`select count(*) as n from people
      where (${getsIt(db, mailing, now)}) and (${getsIt(db, other, now)})`),
  )!.n
}
