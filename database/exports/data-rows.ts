import { isCountedSql } from '../../core/counting'
import { sql, type RawBuilder } from 'kysely'
import { csvRow, exportColumns, showFieldValue, type CsvLook } from '../../core/people'
import { variantName } from '../../core/dispatch'
import { renditionName } from '../../core/letters'
import { leaveReasons, type DataKind } from '../../core/results'
import { readAccount } from '../account'
import { goalReachers, ordersOfMailing, sentLetters } from '../results'
import { exportPeople } from './people'
import { readFields } from '../people'
import { moneyDigitsOf, readCatalog } from '../segments'
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

/** What stands at the end of each row that is about a mailing: when it began to go out, and which letter somebody got. */
const WHICH = ['Sent', 'Subject', 'Variant', 'Version']

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
  const which = whichLetters(db, mailings)
  switch (kind) {
    case 'sends': {
      yield [['Mailing', 'Address', 'State', 'Since', 'Delivered', 'Attempts', 'Answer', ...WHICH]]
      const columns = sql`r.state, r.at as at, r.accepted_at as deliveredAt, r.attempts, r.answer`
      for (const mailing of named)
        yield* ofRecipients<Send>(db, which, mailing, columns, within(sql`r.at`, query), (row) => [
          row.state,
          time(row.at),
          time(row.deliveredAt),
          String(row.attempts),
          row.answer ?? '',
        ])
      return
    }
    case 'opens':
      yield [['Mailing', 'Address', 'At', 'By', 'Program', ...WHICH]]
      if (!query.unique) return yield* acts(db, 'open', query, mailings, which)
      for (const mailing of named)
        yield* ofRecipients<At>(
          db,
          which,
          mailing,
          sql`r.opened_at as at`,
          within(sql`r.opened_at`, query),
          ({ at }) => [time(at), 'a person', ''],
        )
      return
    case 'clicks':
      yield [['Mailing', 'Address', 'At', 'By', 'Program', 'Link', 'Words', ...WHICH]]
      if (!query.unique) return yield* acts(db, 'click', query, mailings, which)
      for (const mailing of named)
        yield* ofRecipients<At & { url: string | null; words: string | null }>(
          db,
          which,
          mailing,
          sql`r.clicked_at as at, l.url, l.words`,
          within(sql`r.clicked_at`, query),
          ({ at, url, words }) => [time(at), 'a person', '', url ?? '', words ?? ''],
          sql`left join acts as a on a.id = (
              select min(f.id) from acts as f where f.kind = 'click' and f.mailing_id = r.mailing_id
                and f.person_id = r.person_id and f.round = r.round and f.verdict = 'human')
            left join mailing_links as l on l.mailing_id = r.mailing_id and l.no = a.link`,
        )
      return
    case 'bounces':
    case 'complaints': {
      yield [['Mailing', 'Address', 'At', 'State', 'Answer', ...WHICH]]
      const found = isCountedSql(kind === 'bounces' ? 'bounced' : 'complained')
      const where = sql`${found} and ${within(sql`r.at`, query)}`
      const columns = sql`r.at as at, r.state, r.answer`
      for (const mailing of named)
        yield* ofRecipients<Send>(db, which, mailing, columns, where, ({ at, state, answer }) => [
          time(at),
          state,
          answer ?? '',
        ])
      return
    }
    case 'unsubscribes': {
      yield [['Mailing', 'Address', 'At', 'Reason', 'In their words', ...WHICH]]
      const names = new Map<string, string>(leaveReasons.map(({ key, name }) => [key, name]))
      for (const mailing of named)
        yield* ofRecipients<At & { reason: string | null; words: string | null }>(
          db,
          which,
          mailing,
          sql`r.left_at as at, w.reason, w.words`,
          within(sql`r.left_at`, query),
          ({ at, reason, words }) => [
            time(at),
            names.get(reason ?? '') ?? reason ?? '',
            words ?? '',
          ],
          sql`left join leave_reasons as w on w.mailing_id = r.mailing_id and w.person_id = r.person_id and w.round = r.round`,
        )
      return
    }
    case 'goals':
      yield [['Mailing', 'Address', 'Reached', ...WHICH]]
      for (const mailing of mailings.values()) {
        const { goal } = planOf(mailing)
        if (!goal) continue
        for (let after = 0; ;) {
          const rows = goalReachers(db, mailing, goal, after, BATCH)
          if (rows.length === 0) break
          after = rows.at(-1)!.id
          const got = gotBy(db, mailing.id, rows)
          yield rows
            .filter(({ at }) => at >= query.since && at < query.until)
            .map(({ id, address, at }) => [
              mailing.name,
              address,
              time(at),
              ...which(mailing.id, got.get(id)),
            ])
        }
      }
      return
    case 'orders': {
      const { currency } = readAccount(db)!
      const digits = moneyDigitsOf(currency)
      yield [['Mailing', 'Address', 'At', 'Order', 'Money', 'Currency', ...WHICH]]
      for (const { id: mailing, name } of named)
        for (let after = 0; ;) {
          const orders = ordersOfMailing(db, mailing, after, BATCH)
          if (orders.length === 0) break
          after = orders.at(-1)!.id
          const got = gotBy(
            db,
            mailing,
            orders.map(({ person }) => ({ id: person })),
          )
          yield orders
            .filter(({ at }) => at >= query.since && at < query.until)
            .map(({ person, number, at, money }) => [
              name,
              got.get(person)?.address ?? '',
              time(at),
              number,
              (money / 10 ** digits).toFixed(digits),
              currency,
              ...which(mailing, got.get(person)),
            ])
        }
      return
    }
    case 'holdouts':
      yield [['Mailing', 'Address', 'Chosen', 'Sent']]
      for (const { id: mailing, name } of named)
        for (let after = 0; ;) {
          const rows = all(
            db,
            raw(sql<{ id: number; address: string; at: number }>`
              select h.person_id as id, p.address, h.at from holdouts as h join people as p on p.id = h.person_id
              where h.mailing_id = ${mailing} and h.person_id > ${after} and ${within(sql`h.at`, query)}
              order by h.person_id limit ${BATCH}`),
          )
          if (rows.length === 0) break
          after = rows.at(-1)!.id
          const sent = time(mailings.get(mailing)!.started_at)
          yield rows.map(({ address, at }) => [name, address, time(at), sent])
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
  answer: string | null
}

/** Which of a mailing's letters somebody got: the variant, and what of it was shown to them, as bits. */
interface Got {
  variant: number | null
  truth: number | null
}
type Which = (mailing: number, got: Got | undefined) => string[]

/** Says the cells of {@link WHICH}; a mailing's letters are read once. */
function whichLetters(
  db: Database,
  mailings: ReadonlyMap<number, { started_at: number | null }>,
): Which {
  const catalog = readCatalog(db)
  const letters = new Map<number, ReturnType<typeof sentLetters>>()
  const versions = new Map<string, string>()
  return (mailing, got) => {
    if (!letters.has(mailing)) letters.set(mailing, sentLetters(db, mailing))
    const letter = letters.get(mailing)!.get(got?.variant ?? 0)
    const key = `${mailing} ${got?.variant} ${got?.truth}`
    if (!versions.has(key))
      versions.set(
        key,
        letter && got?.truth != null ? renditionName(letter.document, got.truth, catalog) : '',
      )
    return [
      time(mailings.get(mailing)?.started_at ?? null),
      letter?.subject ?? '',
      got?.variant == null ? '' : variantName(got.variant),
      versions.get(key)!,
    ]
  }
}

/** What some recipients of a mailing got, by their number. */
function gotBy(
  db: Database,
  mailing: number,
  people: readonly { id: number }[],
): Map<number, Got & { address: string }> {
  const ids = JSON.stringify(people.map(({ id }) => id))
  const rows = all(
    db,
    raw(sql<Got & { id: number; address: string }>`
      select r.person_id as id, r.variant, r.truth, p.address
      from recipients as r join people as p on p.id = r.person_id
      where r.mailing_id = ${mailing} and r.person_id in (select value from json_each(${ids}))`),
  )
  return new Map(rows.map((row) => [row.id, row]))
}

/** A row for each recipient of a mailing that `where` holds for, by their numbers. */
function* ofRecipients<R>(
  db: Database,
  which: Which,
  { id, name }: { id: number; name: string },
  columns: RawBuilder<unknown>,
  where: RawBuilder<unknown>,
  cells: (row: R) => string[],
  joins: RawBuilder<unknown> = sql``,
): Generator<string[][]> {
  for (let after = 0, afterRound = 0; ;) {
    const rows = all(
      db,
      raw(sql<R & Got & { id: number; round: number; address: string }>`
        select r.person_id as id, r.round, p.address, r.variant, r.truth, ${columns}
        from recipients as r join people as p on p.id = r.person_id ${joins}
        where r.mailing_id = ${id} and (r.person_id, r.round) > (${after}, ${afterRound}) and ${where}
        order by r.person_id, r.round limit ${BATCH}`),
    )
    if (rows.length === 0) return
    ;({ id: after, round: afterRound } = rows.at(-1)!)
    yield rows.map((row) => [name, row.address, ...cells(row), ...which(id, row)])
  }
}

/** Every open or click, machines' too, in the order in which they came. */
function* acts(
  db: Database,
  kind: 'open' | 'click',
  query: DataQuery,
  mailings: ReadonlyMap<number, { name: string }>,
  which: Which,
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
        variant: number | null
        truth: number | null
        verdict: string | null
        agent: number
        link: number | null
      }>`
        select a.mailing_id as mailing, p.address, a.at, a.verdict, a.agent_id as agent, a.link, r.variant, r.truth
        from acts as a join people as p on p.id = a.person_id
          left join recipients as r on r.mailing_id = a.mailing_id and r.person_id = a.person_id and r.round = a.round
        where a.id > ${from} and a.id <= ${from + WINDOW} and a.kind = ${kind} and ${within(sql`a.at`, query)}
        order by a.id`),
    )
    const found: string[][] = []
    for (const { mailing, address, at, verdict, agent, link, ...got } of rows) {
      const of = mailings.get(mailing)
      if (!of) continue
      const row = [of.name, address, time(at), by(verdict, kind), agents.get(agent) ?? '']
      if (kind === 'click') {
        const to = links.get(`${mailing} ${link}`)
        row.push(to?.url ?? '', to?.words ?? '')
      }
      row.push(...which(mailing, got))
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
