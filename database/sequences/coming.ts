import { sql, type RawBuilder } from 'kysely'
import { readFieldValue } from '../../core/people'
import { carriedSql } from '../../core/segments'
import { JOINED, nextMoment, type DateStart, type Starting } from '../../core/sequences'
import {
  addDays,
  anniversariesFrom,
  DAY,
  dayOf,
  isDay,
  minuteOfDay,
  startOfDay,
} from '../../core/time'
import { readFields } from '../people'
import { all, one, q, raw, type Database } from '../query'
import { askedAt } from '../segments'
import { monthDayOf } from './date-index'
import { cuesOf, nextUnopened, unopened, watchOf } from './cues'
import type { Sequence } from './sequences'

/** Somebody who did what starts a sequence, and by which event or order. */
export interface Comer {
  person: number
  by: number | null
}

/** Who newly came by a start, up to where its record is read by that, and whether there is more of it. */
export interface Coming {
  comers: Comer[]
  upto: number
  more: boolean
  /** A whole segment comes; 0: everybody on the list. */
  segment?: number
}

/** Records are read in parts, so that no transaction is long. */
const BATCH = 2_000

/** Who newly did what a start asks, behind where its record was read last (`upto`). Nothing is changed by it. */
export function comingBy(
  db: Database,
  sequence: Sequence,
  start: Starting,
  { upto, now, zone }: { upto: number; now: number; zone: string },
): Coming {
  switch (start.is) {
    case 'joined': {
      const bySignUp =
        start.signUpId === null
          ? sql`1`
          : sql`e.sending_id in (select id from sign_up_sendings where sign_up_id = ${start.signUpId})`
      // Nobody comes in by an import that was not meant to start anything, nor because two people became one.
      return read(
        db,
        sql`evidence as e left join imports as i on e.way = 'import' and i.id = cast(e.way_ref as integer)`,
        sql`e.list_id = ${sequence.list_id} and e.state = 'subscribed' and e.way <> 'merged'
          and coalesce(i.starts_sequences, 1) = 1 and ${bySignUp}`,
        sql`null`,
        upto,
      )
    }
    case 'event': {
      const { name, where } = start
      const carried = where ? carriedSql(where, sql`e.props`, askedAt(db, now)) : sql`1`
      return read(db, sql`events as e`, sql`e.name = ${name} and ${carried}`, sql`e.id`, upto)
    }
    case 'ordered':
      // What was ordered before the sequence ran may come in late, by a file.
      return read(
        db,
        sql`orders as e`,
        sql`e.at >= ${sequence.started_at ?? now} - ${DAY} and ${start.first ? isFirst : sql`1`}`,
        sql`e.id`,
        upto,
      )
    case 'left behind':
      return leftBehind(db, start, upto, now)
    case 'date':
      return byDate(db, sequence, start, { upto, now, zone })
    case 'segment':
    // Noted once a day by who follows segments: see `arrivedBySegment`.
    case 'api':
      // They are put at the door as it is said: see `letInSoon`.
      return { comers: [], upto, more: false }
    case 'tag':
      return read(db, sql`cues as e`, cuesOf(sequence.id, watchOf(start)!), sql`null`, upto)
    case 'field': {
      const isIt = start.to === null ? sql`1` : isValue(db, start.field, start.to)
      const counts = sql`${cuesOf(sequence.id, watchOf(start)!)} and ${isIt}`
      return read(db, sql`cues as e`, counts, sql`null`, upto)
    }
    case 'mailed':
      return start.did === 'not opened'
        ? unopened(db, sequence.id, start, { upto, now, most: BATCH })
        : read(db, sql`cues as e`, cuesOf(sequence.id, watchOf(start)!), sql`null`, upto)
    case 'moment': {
      const due = nextMoment(start, Math.max(upto, now - LATE), zone)
      if (due === null || due > now) return { comers: [], upto, more: false }
      return { comers: [], upto: due, more: true, segment: start.segmentId }
    }
  }
}

/** Whether a cue's value is what was typed for its field; of several choices, one of them. */
function isValue(db: Database, key: string, typed: string) {
  const field = readFields(db).find((one) => one.key === key)
  if (!field) return sql`0`
  if (field.kind === 'choices')
    return sql`exists (select 1 from json_each(case when json_valid(e.value) then e.value else '[]' end) as one
      where lower(one.value) = lower(${typed.trim()}))`
  const value = readFieldValue(typed, field.kind)
  if (typeof value === 'number') return sql`cast(e.value as real) = ${value}`
  if (typeof value === 'boolean') return sql`e.value = ${value ? '1' : '0'}`
  return sql`lower(e.value) = lower(${String(value ?? typed)})`
}

const isFirst = sql`not exists (select 1 from orders as f where f.person_id = e.person_id and (f.at, f.id) < (e.at, e.id))`

/** The rows of a record behind `upto`, of which some let somebody in. */
function read(
  db: Database,
  from: RawBuilder<unknown>,
  counts: RawBuilder<unknown>,
  by: RawBuilder<unknown>,
  upto: number,
): Coming {
  const rows = all(
    db,
    raw(sql<{ id: number; person: number | null; by: number | null }>`
      select e.id as id, case when ${counts} then e.person_id end as person, ${by} as "by"
      from ${from} where e.id > ${upto} order by e.id limit ${BATCH}`),
  )
  const comers = rows.flatMap(({ person, by }) => (person === null ? [] : [{ person, by }]))
  return { comers, upto: rows.at(-1)?.id ?? upto, more: rows.length === BATCH }
}

/**
 * Events that nothing followed within the time. An event that the same person did again meanwhile gives way to the later
 * one. Read up to the first whose time is not over.
 */
function leftBehind(
  db: Database,
  { name, unless, within }: Extract<Starting, { is: 'left behind' }>,
  upto: number,
  now: number,
): Coming {
  const unripe = firstUnripe(db, name, upto, now - within)
  const followed =
    unless === null
      ? sql`exists (select 1 from orders as f where f.person_id = e.person_id and f.at between e.at and e.at + ${within})`
      : sql`exists (select 1 from events as f where f.person_id = e.person_id and f.name = ${unless} and f.at between e.at and e.at + ${within})`
  const again = sql`exists (select 1 from events as f where f.person_id = e.person_id and f.name = e.name
    and f.at between e.at and e.at + ${within} and f.id > e.id)`
  const found = read(
    db,
    sql`events as e`,
    sql`e.name = ${name} and e.id < ${unripe ?? Number.MAX_SAFE_INTEGER} and not ${followed} and not ${again}`,
    sql`e.id`,
    upto,
  )
  if (unripe === null || found.upto < unripe) return found
  return { ...found, upto: unripe - 1, more: false }
}

function firstUnripe(db: Database, name: string, upto: number, before: number): number | null {
  const first = q
    .selectFrom('events')
    .select((eb) => eb.fn.min<number | null>('id').as('id'))
    .where('name', '=', name)
    .where('at', '>', before)
    .where('id', '>', upto)
  return one(db, first)?.id ?? null
}

/** A date is not kept any more than a week late, as where nothing ran meanwhile. */
const LATE = 7 * DAY

/** Whose date it is, on the first day whose hour has come since it was read last; `upto` is a time. */
function byDate(
  db: Database,
  sequence: Sequence,
  start: DateStart,
  { upto, now, zone }: { upto: number; now: number; zone: string },
): Coming {
  const due = nextHour(start, Math.max(upto, now - LATE), zone)
  if (due > now) return { comers: [], upto, more: false }
  const day = dayOf(addDays(due, -start.days, zone), zone)
  const onList = sql`exists (select 1 from subscriptions as s where s.person_id = p.id
    and s.list_id = ${sequence.list_id} and s.state = 'subscribed')`
  const people = all(
    db,
    raw(sql<{ id: number }>`
      select p.id as id from people as p where ${isOn(start, day, zone)} and ${onList} order by p.id`),
  )
  return { comers: people.map(({ id }) => ({ person: id, by: null })), upto: due, more: true }
}

/** Whether somebody's date is that day; every year: or was in an earlier year, 29 February on the 28th where there is none. */
function isOn({ of, yearly }: DateStart, day: string, zone: string) {
  const days = anniversariesFrom(day, 0)
  if (of !== JOINED) {
    const value = sql`json_extract(p.fields, ${`$."${of}"`})`
    return yearly
      ? sql`${monthDayOf(of, 'p')} in (${sql.join(days)}) and ${value} <= ${day}`
      : sql`${monthDayOf(of, 'p')} = ${day.slice(5)} and ${value} = ${day}`
  }
  const year = Number(day.slice(0, 4))
  const years = yearly ? Array.from({ length: 60 }, (_, n) => year - 1 - n) : [year]
  const spans = years
    .flatMap((one) => days.map((monthDay) => `${one}-${monthDay}`))
    .filter((one) => yearly || one === day)
    .filter(isDay)
    .map((one) => [startOfDay(one, zone), addDays(startOfDay(one, zone), 1, zone)] as const)
  return sql`(${sql.join(
    spans.map(([from, to]) => sql`(p.joined_at >= ${from} and p.joined_at < ${to})`),
    sql` or `,
  )})`
}

/** The first moment behind a time at which the hour of a start comes. */
function nextHour({ hour }: DateStart, after: number, zone: string): number {
  const today = minuteOfDay(after, hour * 60, zone)
  return today > after ? today : minuteOfDay(addDays(after, 1, zone), hour * 60, zone)
}

/** When a start has something to look at that is not there yet, but will be by itself; null where it waits for people. */
export function nextComing(
  db: Database,
  sequenceId: number,
  start: Starting,
  { upto, zone }: { upto: number; zone: string },
): number | null {
  if (start.is === 'date') return nextHour(start, upto, zone)
  if (start.is === 'moment') return nextMoment(start, upto, zone)
  if (start.is === 'mailed' && start.did === 'not opened')
    return nextUnopened(db, sequenceId, start, upto)
  if (start.is !== 'left behind') return null
  const first = q
    .selectFrom('events')
    .select((eb) => eb.fn.min<number | null>('at').as('at'))
    .where('name', '=', start.name)
    .where('id', '>', upto)
  const at = one(db, first)?.at ?? null
  return at === null ? null : at + start.within
}
