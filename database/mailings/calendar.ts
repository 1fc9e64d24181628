import { sql, type Expression, type SqlBool } from 'kysely'
import { dayOf, startOfDay, addDays, type Day } from '../../core/time'
import { readAccount } from '../account'
import { eligible } from '../segments'
import { audienceOf, mailingsWithTotals, type MailingWithTotals } from './mailings'
import { one, raw, type Database } from '../query'

/** What goes out, or went, within some days. */
export function mailingsBetween(db: Database, from: Day, to: Day): MailingWithTotals[] {
  const zone = readAccount(db)?.zone ?? 'UTC'
  const end = addDays(startOfDay(to, zone), 1, zone) - 1
  return mailingsWithTotals(db, { from: startOfDay(from, zone), to: end })
    .filter(({ state }) => state !== 'draft')
    .toSorted((a, b) => timeOf(a) - timeOf(b))
}

/** When a mailing goes out, or began to. */
export function timeOf(mailing: Pick<MailingWithTotals, 'started_at' | 'scheduled_at'>): number {
  return mailing.started_at ?? mailing.scheduled_at!
}

/** How much mail a day brings to people: how many get any, and how many get more than one. */
export interface DayLoad {
  day: Day
  people: number
  several: number
}

/** The load of each day that has mail, exact: recipients of what has begun, and who would get the rest as things stand. */
export function loadByDay(db: Database, from: Day, to: Day, now: number): DayLoad[] {
  const zone = readAccount(db)?.zone ?? 'UTC'
  const days = new Map<Day, Expression<SqlBool>[]>()
  for (const mailing of mailingsBetween(db, from, to)) {
    const day = dayOf(timeOf(mailing), zone)
    const gets = getsIt(db, mailing, now)
    if (gets) days.set(day, [...(days.get(day) ?? []), gets])
  }
  return [...days].map(([day, gets]) => ({ day, ...countLoad(db, gets) }))
}

function getsIt(db: Database, mailing: MailingWithTotals, now: number) {
  if (mailing.started_at !== null)
    return sql<SqlBool>`exists (select 1 from recipients as r where r.mailing_id = ${mailing.id} and r.person_id = people.id and r.state <> 'dropped')`
  const audience = audienceOf(db, mailing)
  return audience && eligible(db, audience, now)
}

function countLoad(db: Database, gets: readonly Expression<SqlBool>[]) {
  const sum = sql.join(
    gets.map((one) => sql`(${one})`),
    sql` + `,
  )
  return one(
    db,
    raw(
      sql<{
        people: number
        several: number
      }>`select coalesce(sum(n > 0), 0) as people, coalesce(sum(n > 1), 0) as several from (select ${sum} as n from people)`,
    ),
  )!
}
