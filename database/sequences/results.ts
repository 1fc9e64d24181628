import { sql, type RawBuilder, type SqlBool } from 'kysely'
import { DAY } from '../../core/time'
import { carriedSql } from '../../core/segments'
import { mailingsOfMap, type Happening, type SequenceMap } from '../../core/sequences'
import { all, one, q, raw, type Database } from '../query'
import { askedAt } from '../segments'
import { contentOf } from '../sending'
import { HELD_OUT } from './entering'
import { mapOfVersion, type Sequence } from './sequences'

/** What people did within so many days of coming in, of whom these are over: the led, and those held out. */
export interface GroupOutcome {
  of: number
  /** Did what the goal asks. */
  hits: number
  /** Of orders, in minor units; and of each who ordered. */
  money: number
  each: number[]
}

/** Where there are more rounds than so many, one in several is asked. */
const ASKED = 100_000

/** What is counted of a goal. */
export interface CountedGoal {
  /** Its step; null: a map without a goal, of which orders are counted. */
  step: string | null
  when: Happening
  /** What it is worth each time, in minor units; null: what was ordered. */
  worth: number | null
}

/**
 * What came of those who were led through a sequence, and of those held out from it, within the same days of coming in. An
 * order or an event counts whoever did it; what only who is inside can reach is looked up on their trail.
 * @param which Says of a row of enrolments, as `n`, whether it is looked at.
 */
export function outcomeOfGroups(
  db: Database,
  { id }: Sequence,
  goal: CountedGoal,
  days: number,
  now: number,
  which: RawBuilder<SqlBool>,
): { led: GroupOutcome; heldOut: GroupOutcome; oneIn: number } {
  const all_ = one(
    db,
    q
      .selectFrom('sequence_standing')
      .select((eb) => eb.fn.sum<number | null>('people').as('n'))
      .where('sequence_id', '=', id),
  )!
  const oneIn = Math.max(1, Math.ceil((all_.n ?? 0) / ASKED))
  const window = days * DAY
  const rows = all(
    db,
    raw(sql<{ held: number; hit: number; money: number }>`
      select held, ${reached(db, id, goal, window, now)} as hit, money from (
        select n.person_id, n.round, n.entered_at, n.why is ${HELD_OUT} as held, coalesce((select sum(o.money) from orders as o
          where o.person_id = n.person_id and o.at >= n.entered_at and o.at < n.entered_at + ${window}), 0) as money
        from enrolments as n where n.sequence_id = ${id} and n.entered_at <= ${now - window} and n.person_id % ${oneIn} = 0 and ${which}) as n`),
  )
  const group = (held: number): GroupOutcome => {
    const mine = rows.filter((row) => row.held === held)
    const worthOf = ({ hit, money }: { hit: number; money: number }) =>
      goal.worth === null ? money : hit ? goal.worth : 0
    const each = mine.map(worthOf).filter((money) => money > 0)
    return {
      of: mine.length,
      hits: mine.filter(({ hit }) => hit).length,
      money: each.reduce((sum, money) => sum + money, 0),
      each,
    }
  }
  return { led: group(0), heldOut: group(1), oneIn }
}

/** Whether a row of enrolments, as `n`, reached a goal within a time of coming in. */
function reached(
  db: Database,
  sequenceId: number,
  { step, when }: CountedGoal,
  window: number,
  now: number,
): RawBuilder<unknown> {
  const ofTheirs = (at: RawBuilder<unknown>) =>
    sql`${at} >= n.entered_at and ${at} < n.entered_at + ${window}`
  if (when.is === 'ordered')
    return sql`exists (select 1 from orders as o where o.person_id = n.person_id and ${ofTheirs(sql`o.at`)})`
  if (when.is === 'did') {
    const carried = when.where ? carriedSql(when.where, sql.ref('e.props'), askedAt(db, now)) : null
    return sql`exists (select 1 from events as e where e.person_id = n.person_id and e.name = ${when.event}
      and ${ofTheirs(sql`e.at`)} ${carried ? sql`and ${carried}` : sql``})`
  }
  return sql`exists (select 1 from sequence_trail as t where t.sequence_id = ${sequenceId} and t.person_id = n.person_id
    and t.round = n.round and t.step = ${step} and t.way = 1 and ${ofTheirs(sql`t.at`)})`
}

/** How many came out on the way, by why; those held out are not among them. */
export function leftBy(db: Database, sequenceId: number): { why: string; people: number }[] {
  return all(
    db,
    q
      .selectFrom('sequence_standing')
      .select(['place as why', (eb) => eb.fn.sum<number>('people').as('people')])
      .where('sequence_id', '=', sequenceId)
      .where('state', '=', 'left')
      .where('place', '!=', HELD_OUT)
      .where('people', '>', 0)
      .groupBy('place')
      .orderBy('people', 'desc'),
  )
}

/** First opens of a sequence's mails in the last half year, as times; up to so many. `which`: of some rounds alone. */
export function openTimes(
  db: Database,
  { id, map }: { id: number; map: SequenceMap },
  now: number,
  which: RawBuilder<SqlBool> | null,
  limit = 5_000,
): number[] {
  const mailings = mailingsOfMap(map)
  if (mailings.length === 0) return []
  return all(
    db,
    q
      .selectFrom('recipients')
      .select('opened_at')
      .where('mailing_id', 'in', mailings)
      .where('opened_at', '>', now - 180 * DAY)
      .$if(which !== null, (query) => query.where(ofRounds(id, which!)))
      .limit(limit),
  ).map(({ opened_at }) => opened_at!)
}

/**
 * How many wrote back to each mail of a map, by mailing; null where replies went past us. `which`: of some rounds alone.
 */
export function repliedTo(
  db: Database,
  { id, map }: { id: number; map: SequenceMap },
  which: RawBuilder<SqlBool> | null,
): Record<number, number | null> {
  const mailings = mailingsOfMap(map)
  if (mailings.length === 0) return {}
  const found = all(
    db,
    q
      .selectFrom('recipients')
      .select((eb) => ['mailing_id', eb.fn.count<number>('person_id').distinct().as('people')])
      .where('mailing_id', 'in', mailings)
      .where('replied_at', 'is not', null)
      .$if(which !== null, (query) => query.where(ofRounds(id, which!)))
      .groupBy('mailing_id'),
  )
  const people = new Map(found.map((row) => [row.mailing_id, row.people]))
  return Object.fromEntries(
    mailings.map((mailing) => {
      const isMeasured = people.has(mailing) || contentOf(db, mailing)?.replies === 'kept'
      return [mailing, isMeasured ? (people.get(mailing) ?? 0) : null]
    }),
  )
}

/** That a recipient got it in one of some rounds. */
const ofRounds = (sequenceId: number, which: RawBuilder<SqlBool>) =>
  sql<SqlBool>`exists (select 1 from enrolments as n where n.sequence_id = ${sequenceId}
    and n.person_id = recipients.person_id and n.round = recipients.round and ${which})`

/** One person's rounds in a sequence, the latest first, each with their way through it. */
export function wayOf(db: Database, sequenceId: number, personId: number) {
  const rounds = all(
    db,
    q
      .selectFrom('enrolments')
      .select([
        'round',
        'version',
        'state',
        'why',
        'step',
        'due',
        'entered_at',
        'ended_at',
        'start',
      ])
      .where('sequence_id', '=', sequenceId)
      .where('person_id', '=', personId)
      .orderBy('round', 'desc')
      .limit(20),
  )
  const trail = all(
    db,
    q
      .selectFrom('sequence_trail')
      .select(['round', 'visit', 'step', 'way', 'at'])
      .where('sequence_id', '=', sequenceId)
      .where('person_id', '=', personId)
      .orderBy('round')
      .orderBy('visit'),
  )
  const mails = all(
    db,
    q
      .selectFrom('recipients as r')
      .innerJoin('mailings as m', 'm.id', 'r.mailing_id')
      .select(['r.round', 'r.mailing_id', 'r.state', 'r.answer', 'r.accepted_at'])
      .select(['r.opened_at', 'r.clicked_at', 'r.replied_at', 'r.left_at'])
      .where('m.sequence_id', '=', sequenceId)
      .where('r.person_id', '=', personId),
  )
  return rounds.map(({ start, ...round }) => ({
    ...round,
    /** What they came in by, as the version that they came in by says it; null: by hand, or by another sequence. */
    by:
      start === null ? null : (mapOfVersion(db, sequenceId, round.version).start.by[start] ?? null),
    trail: trail.filter((one) => one.round === round.round),
    mails: mails.filter((one) => one.round === round.round),
  }))
}
