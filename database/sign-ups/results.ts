import { sql } from 'kysely'
import type { Doubt, SignUpCounts } from '../../core/sign-ups'
import { DAY } from '../../core/time'
import { all, one, q, raw, type Database } from '../query'

/** What a form's results are told by, besides the whole. */
export const resultSlices = ['version', 'page', 'source', 'device', 'language', 'week'] as const
export type ResultSlice = (typeof resultSlices)[number]

const took = sql`s.state in ('pending', 'confirmed', 'lapsed', 'already')`

/** What came of a form since a time: visitors, sendings that were taken, and who confirmed and stayed. */
export function signUpCounts(
  db: Database,
  signUpId: number,
  since: number,
  now: number,
): SignUpCounts {
  const stayed = (days: number) => sql`
    sum(s.state = 'confirmed' and s.ended_at <= ${now - days * DAY}) as of${sql.raw(String(days))},
    sum(s.state = 'confirmed' and s.ended_at <= ${now - days * DAY} and exists (
      select 1 from evidence as e
      inner join subscriptions as u on u.person_id = e.person_id and u.list_id = e.list_id
      where e.sending_id = s.id and e.person_id = s.person_id
        and (u.state = 'subscribed' or u.since > s.ended_at + ${days * DAY})
    )) as stayed${sql.raw(String(days))}`
  const sent = one(
    db,
    raw<
      Record<'sentIn' | 'confirmed' | 'of30' | 'stayed30' | 'of90' | 'stayed90', number | null>
    >(sql`
      select sum(${took}) as sentIn, sum(s.state = 'confirmed') as confirmed, ${stayed(30)}, ${stayed(90)}
      from sign_up_sendings as s where s.sign_up_id = ${signUpId} and s.at >= ${since}`),
  )!
  const { seen } = one(
    db,
    q
      .selectFrom('sign_up_visits')
      .select((eb) => eb.fn.countAll<number>().as('seen'))
      .where('sign_up_id', '=', signUpId)
      .where('at', '>=', since),
  )!
  return {
    seen,
    sentIn: sent.sentIn ?? 0,
    confirmed: sent.confirmed ?? 0,
    after30: { of: sent.of30 ?? 0, stayed: sent.stayed30 ?? 0 },
    after90: { of: sent.of90 ?? 0, stayed: sent.stayed90 ?? 0 },
  }
}

/** The same by what sets visitors and sendings apart, the most seen first. */
export function signUpSlices(db: Database, signUpId: number, by: ResultSlice, since: number) {
  const of = (alias: 'v' | 's') => {
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
        return alias === 'v' ? sql`coalesce(v.device, '')` : sql`coalesce(s.device, '')`
      case 'week':
        return sql`cast((${column('at')} - ${since}) / ${7 * DAY} as integer)`
    }
  }
  const [visited, sent] = [of('v'), of('s')]
  return all(
    db,
    raw<{
      what: string | number
      seen: number
      begun: number
      sentIn: number
      confirmed: number
    }>(sql`
      select what, sum(seen) as seen, sum(begun) as begun, sum(sentIn) as sentIn, sum(confirmed) as confirmed
      from (
        select ${visited} as what, 1 as seen, v.begun as begun, 0 as sentIn, 0 as confirmed
        from sign_up_visits as v where v.sign_up_id = ${signUpId} and v.at >= ${since}
        union all
        select ${sent} as what, 0, 0, ${took}, s.state = 'confirmed'
        from sign_up_sendings as s where s.sign_up_id = ${signUpId} and s.at >= ${since}
      ) group by what order by sum(seen) + sum(sentIn) desc limit 60`),
  )
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
