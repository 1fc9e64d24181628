import { totalSql } from '../../core/counting'
import { sql } from 'kysely'
import { dayOf, HOUR, startOfDay, DAY } from '../../core/time'
import { all, q, raw, type Database } from '../query'
import { sequenceMailByHour, sequenceOpens } from './of-sequences'
import { growthByDay, isTest } from './results'

/** The last `many` months up to now, in a zone: their names ("2026-11") and when the first of them began. */
export function monthsUpTo(now: number, many: number, zone: string) {
  let [year, month] = dayOf(now, zone).split('-').map(Number) as [number, number]
  const months: string[] = []
  for (let i = 0; i < many; i++) {
    months.unshift(`${year}-${String(month).padStart(2, '0')}`)
    month--
    if (month === 0) [year, month] = [year - 1, 12]
  }
  return { months, since: startOfDay(`${months[0]}-01`, zone) }
}

/** Every mailing that went out by itself since, with what came of it. */
export function sentSince(db: Database, since: number) {
  return all(
    db,
    q
      .selectFrom('mailings')
      .innerJoin('letters', 'letters.id', 'mailings.letter_id')
      .innerJoin('mailing_totals as t', 't.mailing_id', 'mailings.id')
      .select(['mailings.id', 'mailings.name', 'mailings.started_at', 'letters.subject'])
      .select(isTest.as('tested'))
      .select(['t.opened', 't.clicked', totalSql('delivered').as('delivered')])
      .where('mailings.started_at', '>=', since)
      .where('mailings.sequence_id', 'is', null)
      .orderBy('mailings.started_at'),
  )
}

/** What was accepted of sequences' mail in each month, and what came of that. */
export function sequenceMailByMonth(
  db: Database,
  since: number,
  months: readonly string[],
  zone: string,
) {
  const hours = sequenceMailByHour(db, since)
  const of = (what: 'delivered' | 'opened' | 'clicked') =>
    perMonth(
      hours.map((row) => ({ day: row.hour, n: row[what] })),
      since,
      months,
      zone,
    )
  const [delivered, opened, clicked] = [of('delivered'), of('opened'), of('clicked')]
  return months.map((month, i) => ({
    month,
    delivered: delivered[i]!,
    opened: opened[i]!,
    clicked: clicked[i]!,
  }))
}

/** How many joined, and how many unsubscribed or were suppressed, in each month. */
export function growthByMonth(
  db: Database,
  since: number,
  months: readonly string[],
  zone: string,
) {
  const { joined, left, aside } = growthByDay(db, since, HOUR)
  const by = (rows: readonly { day: number; n: number }[]) => perMonth(rows, since, months, zone)
  const [came, gone, away] = [by(joined), by(left), by(aside)]
  return months.map((month, i) => ({ month, joined: came[i]!, gone: gone[i]! + away[i]! }))
}

/** What became of those who joined in each month: still on a list, reading lately, have bought. */
export function cohortsByMonth(
  db: Database,
  since: number,
  months: readonly string[],
  zone: string,
  now: number,
) {
  const hours = all(
    db,
    raw(sql<{ day: number; n: number; on: number; reading: number; bought: number }>`
      select cast((f.joined_at - ${since}) / ${HOUR} as integer) as day, count(*) as n,
        sum(exists (select 1 from subscriptions as s where s.person_id = f.person_id and s.state = 'subscribed')
          and not exists (select 1 from set_aside as a where a.person_id = f.person_id)) as "on",
        coalesce(sum(f.last_opened_at >= ${now - 30 * DAY}), 0) as reading,
        sum(f.orders > 0) as bought
      from facts as f where f.joined_at >= ${since} group by 1`),
  )
  const of = (what: 'n' | 'on' | 'reading' | 'bought') =>
    perMonth(
      hours.map((row) => ({ day: row.day, n: row[what] })),
      since,
      months,
      zone,
    )
  const [n, on, reading, bought] = [of('n'), of('on'), of('reading'), of('bought')]
  return months.map((month, i) => ({
    month,
    joined: n[i]!,
    on: on[i]!,
    reading: reading[i]!,
    bought: bought[i]!,
  }))
}

/**
 * First opens by weekday (Monday first) and hour: of mailings begun since, exact to the hour since each began; of
 * sequences' mail those since then.
 */
export function opensByHour(db: Database, since: number, zone: string): number[][] {
  const ofMailings = all(
    db,
    q
      .selectFrom('mailing_hours as h')
      .innerJoin('mailings as m', 'm.id', 'h.mailing_id')
      .select(['m.started_at', 'h.hour', 'h.opens'])
      .where('m.started_at', '>=', since)
      .where('m.sequence_id', 'is', null)
      .where('h.opens', '>', 0),
  )
  const rows = [
    ...ofMailings.map(({ started_at, hour, opens }) => ({
      at: started_at! + (hour + 0.5) * HOUR,
      opens,
    })),
    ...sequenceOpens(db, since),
  ]
  const week = Array.from({ length: 7 }, () => new Array<number>(24).fill(0))
  const format = new Intl.DateTimeFormat('en-GB', {
    timeZone: zone,
    weekday: 'short',
    hour: '2-digit',
    hourCycle: 'h23',
  })
  const days = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun']
  for (const { at, opens } of rows) {
    const parts = format.formatToParts(at)
    const part = (type: string) => parts.find((one) => one.type === type)!.value
    week[days.indexOf(part('weekday'))]![Number(part('hour'))]! += opens
  }
  return week
}

/** Counts by hours since a time, put together by the months of a zone. */
function perMonth(
  rows: readonly { day: number; n: number }[],
  since: number,
  months: readonly string[],
  zone: string,
): number[] {
  const sums = new Map(months.map((month) => [month, 0]))
  for (const { day: hour, n } of rows) {
    const month = dayOf(since + hour * HOUR, zone).slice(0, 7)
    sums.set(month, (sums.get(month) ?? 0) + n)
  }
  return months.map((month) => sums.get(month)!)
}
