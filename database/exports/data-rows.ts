import { isCountedSql } from '../../core/counting'
import { sql, type RawBuilder } from 'kysely'
import { csvRow, exportColumns, showFieldValue, type CsvLook } from '../../core/people'
import { leaveReasons, type DataKind } from '../../core/results'
import { readAccount } from '../account'
import { goalReachers } from '../results'
import { exportPeople } from './people'
import { readFields } from '../people'
import { planOf } from '../mailings'
import { all, one, q, raw, type Database } from '../query'

/** Which rows: of these mailings, from `since` up to and without `until`. */
export interface DataQuery {
  mailings: readonly number[]
  since: number
  until: number
  unique: boolean
  active: boolean
}

/** Rows that are read at once, and numbers of acts that are looked through at once. */
const BATCH = 5_000
const WINDOW = 20_000

/** A kind's rows as CSV with their header, in pieces, so that millions neither fill the memory nor hold up anybody. */
export function* dataRows(
  db: Database,
  kind: DataKind,
  query: DataQuery,
  look: CsvLook,
): Generator<{ csv: string; rows: number }> {
  const pieces = rowsOf(db, kind, query)
  const header = pieces.next().value!
  // The mark by which spreadsheets know UTF-8.
  yield { csv: `\uFEFF${csvRow(header[0]!, look)}`, rows: 0 }
  for (const rows of pieces) {
    let csv = ''
    for (const row of rows) csv += csvRow(row, look)
    yield { csv, rows: rows.length }
  }
}

/** The header alone, then batches of rows. */
function* rowsOf(db: Database, kind: DataKind, query: DataQuery): Generator<string[][]> {
  const mailings = new Map(
    all(db, q.selectFrom('mailings').selectAll().where('started_at', 'is not', null))
      .filter(({ id }) => query.mailings.length === 0 || query.mailings.includes(id))
      .map((mailing) => [mailing.id, mailing]),
  )
  const named = [...mailings.values()].map(({ id, name }) => ({ id, name }))
  switch (kind) {
    case 'sends': {
      yield [['Mailing', 'Address', 'State', 'Since', 'Delivered', 'Attempts', 'Variant', 'Answer']]
      const columns = sql`r.state, r.at as at, r.accepted_at as deliveredAt, r.attempts, r.variant, r.answer`
      for (const mailing of named)
        yield* ofRecipients<Send>(db, mailing, columns, within(sql`r.at`, query), (row) => [
          row.state,
          time(row.at),
          time(row.deliveredAt),
          String(row.attempts),
          row.variant === null ? '' : String.fromCharCode(65 + row.variant),
          row.answer ?? '',
        ])
      return
    }
    case 'opens':
      yield [['Mailing', 'Address', 'At', 'By', 'Program']]
      if (!query.unique) return yield* acts(db, 'open', query, mailings)
      for (const mailing of named)
        yield* ofRecipients<At>(
          db,
          mailing,
          sql`r.opened_at as at`,
          within(sql`r.opened_at`, query),
          ({ at }) => [time(at), 'a person', ''],
        )
      return
    case 'clicks':
      yield [['Mailing', 'Address', 'At', 'By', 'Program', 'Link', 'Words']]
      if (!query.unique) return yield* acts(db, 'click', query, mailings)
      for (const mailing of named)
        yield* ofRecipients<At & { url: string | null; words: string | null }>(
          db,
          mailing,
          sql`r.clicked_at as at, l.url, l.words`,
          within(sql`r.clicked_at`, query),
          ({ at, url, words }) => [time(at), 'a person', '', url ?? '', words ?? ''],
          sql`left join acts as a on a.id = (
              select min(f.id) from acts as f where f.kind = 'click' and f.mailing_id = r.mailing_id
                and f.person_id = r.person_id and f.verdict = 'human')
            left join mailing_links as l on l.mailing_id = r.mailing_id and l.no = a.link`,
        )
      return
    case 'bounces':
    case 'complaints': {
      yield [['Mailing', 'Address', 'At', 'State', 'Answer']]
      const found = isCountedSql(kind === 'bounces' ? 'bounced' : 'complained')
      const where = sql`${found} and ${within(sql`r.at`, query)}`
      const columns = sql`r.at as at, r.state, r.answer`
      for (const mailing of named)
        yield* ofRecipients<Send>(db, mailing, columns, where, ({ at, state, answer }) => [
          time(at),
          state,
          answer ?? '',
        ])
      return
    }
    case 'unsubscribes': {
      yield [['Mailing', 'Address', 'At', 'Reason', 'In their words']]
      const names = new Map<string, string>(leaveReasons.map(({ key, name }) => [key, name]))
      for (const mailing of named)
        yield* ofRecipients<At & { reason: string | null; words: string | null }>(
          db,
          mailing,
          sql`r.left_at as at, w.reason, w.words`,
          within(sql`r.left_at`, query),
          ({ at, reason, words }) => [
            time(at),
            names.get(reason ?? '') ?? reason ?? '',
            words ?? '',
          ],
          sql`left join leave_reasons as w on w.mailing_id = r.mailing_id and w.person_id = r.person_id`,
        )
      return
    }
    case 'goals':
      yield [['Mailing', 'Address', 'Reached']]
      for (const mailing of mailings.values()) {
        const { goal } = planOf(mailing)
        if (!goal) continue
        for (let after = 0; ;) {
          const rows = goalReachers(db, mailing, goal, after, BATCH)
          if (rows.length === 0) break
          after = rows.at(-1)!.id
          yield rows
            .filter(({ at }) => at >= query.since && at < query.until)
            .map(({ address, at }) => [mailing.name, address, time(at)])
        }
      }
      return
    case 'people': {
      const columns = exportColumns(readFields(db), readAccount(db)!.currency)
      yield [['Address', ...columns.map(({ name }) => name)]]
      const choice = query.active
        ? { active: { ...query, mailings: [...mailings.keys()] } }
        : { shown: {} }
      for (const people of exportPeople(db, choice, query.until))
        yield people.map((person) => [
          person.address,
          ...columns.map(({ of }) => showFieldValue(of(person))),
        ])
    }
  }
}

interface At {
  at: number
}
interface Send extends At {
  state: string
  deliveredAt: number | null
  attempts: number
  variant: number | null
  answer: string | null
}

/** A row for each recipient of a mailing that `where` holds for, by their numbers. */
function* ofRecipients<R>(
  db: Database,
  { id, name }: { id: number; name: string },
  columns: RawBuilder<unknown>,
  where: RawBuilder<unknown>,
  cells: (row: R) => string[],
  joins: RawBuilder<unknown> = sql``,
): Generator<string[][]> {
  for (let after = 0; ;) {
    const rows = all(
      db,
      raw(sql<R & { id: number; address: string }>`
        select r.person_id as id, p.address, ${columns}
        from recipients as r join people as p on p.id = r.person_id ${joins}
        where r.mailing_id = ${id} and r.person_id > ${after} and ${where}
        order by r.person_id limit ${BATCH}`),
    )
    if (rows.length === 0) return
    after = rows.at(-1)!.id
    yield rows.map((row) => [name, row.address, ...cells(row)])
  }
}

/** Every open or click, machines' too, in the order in which they came. */
function* acts(
  db: Database,
  kind: 'open' | 'click',
  query: DataQuery,
  mailings: ReadonlyMap<number, { name: string }>,
): Generator<string[][]> {
  const last = one(db, raw(sql<{ id: number | null }>`select max(id) as id from acts`))?.id ?? 0
  const agents = new Map(
    all(db, q.selectFrom('agents').selectAll()).map(({ id, text }) => [id, text]),
  )
  const links = new Map(
    all(db, q.selectFrom('mailing_links').select(['mailing_id', 'no', 'url', 'words'])).map(
      (link) => [`${link.mailing_id} ${link.no}`, link],
    ),
  )
  for (let from = 0; from < last; from += WINDOW) {
    const rows = all(
      db,
      raw(sql<{
        mailing: number
        address: string
        at: number
        verdict: string | null
        agent: number
        link: number | null
      }>`
        select a.mailing_id as mailing, p.address, a.at, a.verdict, a.agent_id as agent, a.link
        from acts as a join people as p on p.id = a.person_id
        where a.id > ${from} and a.id <= ${from + WINDOW} and a.kind = ${kind} and ${within(sql`a.at`, query)}
        order by a.id`),
    )
    const found: string[][] = []
    for (const { mailing, address, at, verdict, agent, link } of rows) {
      const of = mailings.get(mailing)
      if (!of) continue
      const row = [of.name, address, time(at), by(verdict, kind), agents.get(agent) ?? '']
      if (kind === 'click') {
        const to = links.get(`${mailing} ${link}`)
        row.push(to?.url ?? '', to?.words ?? '')
      }
      found.push(row)
    }
    yield found
  }
}

function by(verdict: string | null, kind: 'open' | 'click'): string {
  if (verdict === 'human') return 'a person'
  if (verdict === null) return 'not judged yet'
  return kind === 'open' ? 'a machine' : 'a scanner'
}

const within = (at: RawBuilder<unknown>, { since, until }: DataQuery) =>
  sql`${at} >= ${since} and ${at} < ${until}`

/** A time as ISO 8601 in UTC. */
function time(at: number | null): string {
  return at === null ? '' : new Date(at).toISOString()
}
