import { sql } from 'kysely'
import type { Doubt, SignUpCounts } from '../../core/sign-ups'
import { DAY } from '../../core/time'
import { all, one, q, raw, type Database } from '../query'

/** What a form's results are told by, besides the whole. */
export const resultSlices = ['version', 'page', 'source', 'device', 'language', 'week'] as const
export type ResultSlice = (typeof resultSlices)[number]

/** What can come of a sending, each as a condition on `s`: counted, and asked for whom it holds. */
const outcomes = (now: number) => {
  const confirmed = sql`s.state = 'confirmed'`
  const longAgo = (days: number) => sql`${confirmed} and s.ended_at <= ${now - days * DAY}`
  const stayed = (days: number) => sql`${longAgo(days)} and exists (
    select 1 from evidence as e
    inner join subscriptions as u on u.person_id = e.person_id and u.list_id = e.list_id
    where e.sending_id = s.id and e.person_id = s.person_id
      and (u.state = 'subscribed' or u.since > s.ended_at + ${days * DAY}))`
  const third = sql`from recipients as r where r.person_id = s.person_id and r.accepted_at > s.ended_at
    order by r.accepted_at limit 1 offset 2`
  return {
    sentIn: sql`s.state in ('pending', 'confirmed', 'lapsed', 'already')`,
    confirmed,
    of30: longAgo(30),
    stayed30: stayed(30),
    of90: longAgo(90),
    stayed90: stayed(90),
    thirdOf: sql`${confirmed} and exists (select 1 ${third})`,
    third: sql`${confirmed} and coalesce((select r.opened_at is not null ${third}), 0)`,
    ordered: sql`${confirmed} and exists (
      select 1 from orders as o where o.person_id = s.person_id and o.at > s.ended_at)`,
  }
}
export type SignUpOutcome = keyof ReturnType<typeof outcomes>
export const signUpOutcomes = Object.keys(outcomes(0)) as SignUpOutcome[]

/** By what a visit (`v`) or a sending (`s`) is told apart. */
function sliceOf(alias: 'v' | 's', by: ResultSlice, since: number) {
  const column = (name: string) => sql.ref(`${alias}.${name}`)
  switch (by) {
    case 'version':
    case 'language':
      return column(by)
    case 'page':
      return sql`coalesce(${column('page')}, '')`
    case 'source':
      return sql`coalesce(${column('source')} ->> '$.utm_source', ${column('source')} ->> '$.ref', '')`
    case 'device':
      return sql`coalesce(${column('device')}, '')`
    case 'week':
      return sql`cast((${column('at')} - ${since}) / ${7 * DAY} as integer)`
  }
}

type Row = Record<SignUpOutcome | 'seen' | 'begun', number | null>
export type SignUpSlice = SignUpCounts & { what: string | number }

const asCounts = (row: Row): SignUpCounts => {
  const n = (key: keyof Row) => row[key] ?? 0
  return {
    ...{ seen: n('seen'), begun: n('begun'), sentIn: n('sentIn'), confirmed: n('confirmed') },
    stayed30: { of: n('of30'), did: n('stayed30') },
    stayed90: { of: n('of90'), did: n('stayed90') },
    third: { of: n('thirdOf'), did: n('third') },
    ordered: { of: n('confirmed'), did: n('ordered') },
  }
}

/** What came of a form since a time, in all. */
export function signUpCounts(
  db: Database,
  signUpId: number,
  since: number,
  now: number,
): SignUpCounts {
  const row = one(db, raw<Row>(countedBy(signUpId, sql`''`, sql`''`, since, now)))
  return asCounts(row ?? ({} as Row))
}

/** The same by what sets visitors and sendings apart, the most seen first. */
export function signUpSlices(
  db: Database,
  signUpId: number,
  by: ResultSlice,
  since: number,
  now: number,
): SignUpSlice[] {
  const query = countedBy(signUpId, sliceOf('v', by, since), sliceOf('s', by, since), since, now)
  return all(db, raw<Row & { what: string | number }>(query)).map((row) => ({
    ...{ what: row.what, ...asCounts(row) },
  }))
}

function countedBy(
  signUpId: number,
  visited: ReturnType<typeof sql>,
  sent: ReturnType<typeof sql>,
  since: number,
  now: number,
) {
  const names = signUpOutcomes
  const of = outcomes(now)
  const list = (parts: ReturnType<typeof sql>[]) => sql.join(parts)
  return sql<Row & { what: string | number }>`
    select what, sum(seen) as seen, sum(begun) as begun,
      ${list(names.map((name) => sql`sum(${sql.ref(name)}) as ${sql.ref(name)}`))}
    from (
      select ${visited} as what, 1 as seen, v.begun as begun, ${list(names.map((name) => sql`0 as ${sql.ref(name)}`))}
      from sign_up_visits as v where v.sign_up_id = ${signUpId} and v.at >= ${since}
      union all
      select ${sent} as what, 0, 0, ${list(names.map((name) => sql`(${of[name]})`))}
      from sign_up_sendings as s where s.sign_up_id = ${signUpId} and s.at >= ${since}
    ) group by what order by sum(seen) + sum(sentIn) desc limit 60`
}

/** Of whom a figure tells: sendings of which an outcome holds, of one slice or of all, the latest first. */
export function sendingsBehind(
  db: Database,
  signUpId: number,
  of: { outcome: SignUpOutcome; by: ResultSlice; what: string | null; since: number },
  now: number,
  limit: number,
) {
  const { outcome, by, what, since } = of
  const slice =
    what === null ? sql`true` : sql`${sliceOf('s', by, since)} = ${sliceValue(by, what)}`
  return all(
    db,
    raw<{
      id: number
      address: string
      person_id: number | null
      at: number
      ended_at: number | null
      version: number
      page: string | null
    }>(sql`
      select s.id, coalesce(p.address, s.address) as address, s.person_id, s.at, s.ended_at, s.version, s.page
      from sign_up_sendings as s left join people as p on p.id = s.person_id
      where s.sign_up_id = ${signUpId} and s.at >= ${since} and ${outcomes(now)[outcome]} and ${slice}
      order by s.id desc limit ${limit}`),
  )
}

const sliceValue = (by: ResultSlice, what: string) =>
  by === 'version' || by === 'week' ? Number(what) : what

/** What each published version asked and came to since a time, over all forms. */
export function askedVersions(db: Database, since: number) {
  const many = (table: 'sign_up_visits' | 'sign_up_sendings', which: ReturnType<typeof sql>) => sql`
    (select sign_up_id, version, count(*) as n from ${sql.table(table)}
     where at >= ${since} and ${which} group by sign_up_id, version)`
  const rows = all(
    db,
    raw<{ signUpId: number; fields: string; seen: number; confirmed: number }>(sql`
      select v.sign_up_id as signUpId, coalesce(i.n, 0) as seen, coalesce(s.n, 0) as confirmed,
        (select json_group_array(part.value ->> '$.field') from json_each(v.form, '$.parts') as part
          where part.value ->> '$.kind' = 'field' and part.value ->> '$.field' <> 'address') as fields
      from sign_up_versions as v inner join sign_ups as f on f.id = v.sign_up_id
      left join ${many('sign_up_visits', sql`true`)} as i using (sign_up_id, version)
      left join ${many('sign_up_sendings', sql`state = 'confirmed'`)} as s using (sign_up_id, version)
      where f.deleted_at is null`),
  )
  return rows.map(({ fields, ...row }) => ({ ...row, fields: JSON.parse(fields) as string[] }))
}

/** How many were kept away or kept for a look, by reason, since a time; and how many never confirmed. */
export function keptAway(db: Database, signUpId: number, since: number) {
  const by = all(
    db,
    q
      .selectFrom('sign_up_sendings')
      .select(['doubt', (eb) => eb.fn.countAll<number>().as('many')])
      .where('sign_up_id', '=', signUpId)
      .where('at', '>=', since)
      .where('doubt', 'is not', null)
      .groupBy('doubt')
      .orderBy('many', 'desc'),
  )
  const lapsed = q
    .selectFrom('sign_up_sendings')
    .select((eb) => eb.fn.countAll<number>().as('many'))
    .where('sign_up_id', '=', signUpId)
    .where('ended_at', '>=', since)
    .where('state', '=', 'lapsed')
  return {
    doubts: by.map(({ doubt, many }) => ({ doubt: doubt as Doubt, many })),
    lapsed: one(db, lapsed)!.many,
  }
}
