import { sql, type SqlBool } from 'kysely'
import type { Audience, Customs, Drawn, Often, Soon } from '../../core/rehearsal'
import {
  askedByWaits,
  deedOf,
  happeningsOf,
  rulesOf,
  type Happening,
  type SequenceMap,
} from '../../core/sequences'
import { carriedSql, type Rule } from '../../core/segments'
import { tierOf } from '../../core/standing'
import { DAY, HOUR, hourOf } from '../../core/time'
import { all, one, q, raw, type Database } from '../query'
import { frequencyCap, quietHours } from '../account'
import { everybodysOpens, opensOf } from '../mailings'
import { askedAt, membersOf } from '../segments'
import { zoneOf } from './entering'
import { linkShares } from './link-shares'

/** So many people stand for everybody. */
const DRAWN = 2_000
/** Up to so many on file all are looked at; of more, so many at a time by lot, and not oftener than that. */
const FEW = 50_000
const LOOKED_AT = 8_000
const TIMES = 12
/** What people did lately says what they do; and what those did within a time who came in, if so many did. */
const LATELY = 180 * DAY
const WITHIN = 14 * DAY
const ENOUGH = 100
/** Everybody’s hours are known from as many. */
const READERS = 500

/** Of whom a rehearsal is asked: who could come into a sequence, or one person whoever they are. */
export interface Asking {
  sequenceId: number
  listId: number
  maps: readonly SequenceMap[]
  personId?: number
}

/** Draws the audience of a rehearsal: from those who are on the list, may be mailed and fit the first map’s rule. */
export function drawAudience(db: Database, asking: Asking, now: number): Audience {
  const { listId, maps, personId } = asking
  const may = mayOf(db, listId, maps[0]!.start.rule, now)
  const ids = personId === undefined ? draw(db, may) : [personId]
  const within = JSON.stringify(ids)
  const people = peopleOf(db, within, maps, now)
  const fits = Object.fromEntries(
    maps.flatMap(rulesOf).map((rule) => {
      const found = q
        .selectFrom('facts')
        .select('person_id')
        .where(() => among(within, 'facts.person_id'))
        .where(() => membersOf(db, rule, now))
      const members = new Set(all(db, found).map(({ person_id }) => person_id))
      return [JSON.stringify(rule), people.map(({ id }) => members.has(id))]
    }),
  )
  return { people, isAll: ids.length < DRAWN, customs: customsOf(db, asking, within, now), fits }
}

const among = (ids: string, column: string) =>
  sql<SqlBool>`${sql.ref(column)} in (select value from json_each(${ids}))`

const mayOf = (db: Database, listId: number, rule: Rule | null, now: number) => sql<SqlBool>`
  exists (select 1 from subscriptions as s where s.person_id = facts.person_id and s.list_id = ${listId} and s.state = 'subscribed')
  and not exists (select 1 from set_aside as a where a.person_id = facts.person_id)
  and ${rule ? membersOf(db, rule, now) : sql`true`}`

/** Up to {@link DRAWN} by lot; the same as long as nobody joins. */
function draw(db: Database, may: ReturnType<typeof mayOf>): number[] {
  const last = one(db, raw(sql<{ id: number }>`select max(person_id) as id from facts`))?.id ?? 0
  // Knuth’s multiplicative hash puts ids in an order that has nothing to do with when people came.
  const mixed = sql`(facts.person_id * 2654435761) % 4294967296`
  const some = (from: ReturnType<typeof mayOf>) =>
    all(
      db,
      raw(
        sql<{
          person_id: number
        }>`select facts.person_id from facts where ${from} and ${may} order by ${mixed} limit ${DRAWN}`,
      ),
    ).map(({ person_id }) => person_id)
  if (last <= FEW) return some(sql`true`)
  const found = new Set<number>()
  for (let time = 0; time < TIMES && found.size < DRAWN; time++) {
    const looked = Array.from(
      { length: LOOKED_AT },
      (_, n) => 1 + (((time * LOOKED_AT + n + 1) * 2654435761) % last),
    )
    for (const id of some(among(JSON.stringify(looked), 'facts.person_id'))) found.add(id)
  }
  return [...found].slice(0, DRAWN)
}

function peopleOf(
  db: Database,
  within: string,
  maps: readonly SequenceMap[],
  now: number,
): Drawn[] {
  const asked = maps.map(askedByWaits)
  const fields = asked.flatMap((one) => one.fields)
  const isAsked = asked.some(({ bestHour }) => bestHour)
  return all(
    db,
    q
      .selectFrom('facts')
      .innerJoin('people', 'people.id', 'facts.person_id')
      .select(['people.id', 'people.fields', 'facts.joined_at', 'facts.sent', 'facts.opened'])
      .select(['facts.clicked', 'facts.orders', 'facts.keenness'])
      .where(() => among(within, 'facts.person_id')),
  ).map(({ id, fields: own, joined_at, keenness, ...counts }) => ({
    ...{ id, ...counts, tier: tierOf(keenness, now) },
    days: Math.max(1, Math.round((now - joined_at) / DAY)),
    opens: isAsked ? opensOf(db, id, now) : [],
    fields: fields.length ? someOf(JSON.parse(own) as Record<string, unknown>, fields) : {},
  }))
}

const someOf = (values: Record<string, unknown>, fields: readonly string[]) =>
  Object.fromEntries(
    fields.filter((one) => Object.hasOwn(values, one)).map((one) => [one, values[one]]),
  )

function customsOf(
  db: Database,
  { sequenceId, maps }: Asking,
  within: string,
  now: number,
): Customs {
  const zone = zoneOf(db)
  const readers = JSON.stringify((JSON.parse(within) as number[]).slice(0, READERS))
  const opens = all(
    db,
    raw(sql<{ opened_at: number; accepted_at: number }>`
      select opened_at, accepted_at from recipients where ${among(readers, 'person_id')}
        and opened_at > ${now - LATELY} and accepted_at is not null`),
  )
  const hours = new Array<number>(24).fill(1)
  let delay = 0
  const hoursAhead = hourOf(now, zone) - new Date(now).getUTCHours()
  for (const { opened_at, accepted_at } of opens) {
    hours[(Math.floor(opened_at / HOUR) + hoursAhead + 24) % 24]!++
    delay += Math.min(3 * DAY, Math.max(0, opened_at - accepted_at))
  }
  const most = Math.max(...hours)
  const asked = maps.flatMap(happeningsOf).flatMap((one) => (one.is === 'did' ? [one] : []))
  const deeds = new Map(asked.map((one) => [deedOf(one), one]))
  return {
    ...{ zone, hoursAhead, hours: hours.map((many) => many / most) },
    openDelay: opens.length ? Math.max(60_000, delay / opens.length) : 6 * HOUR,
    leaveOfOpen: leaveOfOpen(db),
    opens: maps.some((map) => askedByWaits(map).bestHour) ? everybodysOpens(db, now) : [],
    links: linkShares(db, maps),
    quiet: quietHours(db),
    cap: frequencyCap(db),
    inside: insideOf(db, sequenceId, now),
    events: Object.fromEntries(
      [...deeds].map(([deed, what]) => [deed, oftenOf(db, sequenceId, what, within, now)]),
    ),
  }
}

function leaveOfOpen(db: Database): number {
  const { left, opened } = one(
    db,
    raw(
      sql<{
        left: number
        opened: number
      }>`select coalesce(sum(left_list), 0) as left, coalesce(sum(opened), 0) as opened from mailing_totals`,
    ),
  )!
  return (left + 1) / (opened + 200)
}

/** What came of the sequence's mails, and how many ordered who were inside. */
function insideOf(db: Database, sequenceId: number, now: number): Customs['inside'] {
  const orders = soonOf(db, sequenceId, sql`orders`, now)
  const mails = one(
    db,
    raw(sql<{ accepted: number; opened: number; clicked: number }>`
      select coalesce(sum(t.accepted), 0) as accepted, coalesce(sum(t.opened), 0) as opened, coalesce(sum(t.clicked), 0) as clicked
      from mailings as m join mailing_totals as t on t.mailing_id = m.id where m.sequence_id = ${sequenceId}`),
  )!
  if (!orders || mails.accepted < ENOUGH) return null
  return {
    orders,
    open: mails.opened / mails.accepted,
    clickOfOpen: mails.opened > 0 ? mails.clicked / mails.opened : 0,
  }
}

function oftenOf(
  db: Database,
  sequenceId: number,
  { event, where }: Extract<Happening, { is: 'did' }>,
  within: string,
  now: number,
): Often {
  const isIt = where ? carriedSql(where, sql`did.props`, askedAt(db, now)) : sql`1`
  const soon = soonOf(db, sequenceId, sql`events`, now, sql`and did.name = ${event} and ${isIt}`)
  if (soon) return soon
  const { n } = one(
    db,
    raw(sql<{
      n: number
    }>`select count(*) as n from events as did where ${among(within, 'did.person_id')}
      and did.name = ${event} and ${isIt} and did.at > ${now - LATELY}`),
  )!
  return { perDay: n / Math.max(1, (JSON.parse(within) as number[]).length * (LATELY / DAY)) }
}

/** Of those who came in two weeks ago or longer, who did something within that time, and how soon. Null: too few came. */
function soonOf(
  db: Database,
  sequenceId: number,
  table: ReturnType<typeof sql>,
  now: number,
  which = sql``,
): Soon | null {
  const { n, did, mean } = one(
    db,
    raw(sql<{ n: number; did: number; mean: number | null }>`
      select count(*) as n, count(first_at) as did, avg(first_at - entered_at) as mean
      from (select came.entered_at, (select min(did.at) from ${table} as did where did.person_id = came.person_id ${which}
          and did.at > came.entered_at and did.at <= came.entered_at + ${WITHIN}) as first_at
        from (select person_id, entered_at from enrolments where sequence_id = ${sequenceId}
          and entered_at <= ${now - WITHIN} order by person_id limit ${DRAWN}) as came)`),
  )!
  return n < ENOUGH ? null : { share: did / n, mean: mean ?? WITHIN }
}
