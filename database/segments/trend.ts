import { nameOrAddress } from '../../core/people'
import { causeAsker } from '../../core/segments'
import { dayOf, type Day } from '../../core/time'
import { factsOf } from './person-facts'
import { all, one, q, run, transact, type Database } from '../query'
import { askedAt, membersOf, readCatalog, type Segment } from './segments'

/** People looked at in one go, so that an engine can do something else between. */
const CHUNK = 20_000
/** Of those who came or went on a day, so many are kept by name and reason. */
const NAMED = 300
/** People shown for each reason. */
const SHOWN = 3
/** Days that names are kept for. */
const NAMES_STAY = 60

/** Who came or went on a day. */
export interface Move {
  personId: number
  came: boolean
  /** The line of the rule, as text; null: a value or a tag was changed. */
  why: string | null
}

/** Segments that have not been followed yet on the day of `now`. */
export function unfollowedSegments(db: Database, now: number): number[] {
  const day = dayOf(now, askedAt(db, now).zone)
  return all(
    db,
    q
      .selectFrom('segments')
      .select('id')
      .where('deleted_at', 'is', null)
      .where('frozen_at', 'is', null)
      .where(({ not, exists, selectFrom }) =>
        not(
          exists(
            selectFrom('segment_days')
              .select('day')
              .whereRef('segment_id', '=', 'segments.id')
              .where('day', '=', day),
          ),
        ),
      )
      .orderBy('id'),
  ).map(({ id }) => id)
}

/** Who came into a segment and who left it since it was noted last. */
export interface Moved {
  came: readonly number[]
  went: readonly number[]
}

/**
 * Notes who is in a segment today, and who came and went since it was noted last. A generator: between its
 * parts others may work. Cut off anywhere it can be done again; only its last step counts. `also` belongs to it: what
 * follows of who moved; nothing does where they moved because the rule was changed.
 */
export function* followSegment(
  db: Database,
  segment: Segment,
  now: number,
  also: (moved: Moved) => void = () => {},
) {
  const asked = askedAt(db, now)
  const day = dayOf(now, asked.zone)
  const last = one(
    db,
    q
      .selectFrom('segment_days')
      .select(['version', 'at'])
      .where('segment_id', '=', segment.id)
      .orderBy('day', 'desc')
      .limit(1),
  )
  const came: number[] = []
  const went: number[] = []
  const top =
    one(
      db,
      q.selectFrom('facts').select((eb) => eb.fn.max('person_id').as('id')),
    )?.id ?? 0
  const members = membersOf(db, segment.rule, now)
  for (let from = 0; from <= top; from += CHUNK) {
    const inRange = q
      .selectFrom('facts')
      .select('facts.person_id')
      .where('facts.person_id', '>=', from)
      .where('facts.person_id', '<', from + CHUNK)
      .where(() => members)
    const present = new Set(all(db, inRange).map(({ person_id }) => person_id))
    const before = all(
      db,
      q
        .selectFrom('segment_people')
        .select('person_id')
        .where('segment_id', '=', segment.id)
        .where('person_id', '>=', from)
        .where('person_id', '<', from + CHUNK),
    )
    for (const { person_id } of before) if (!present.delete(person_id)) went.push(person_id)
    for (const id of present) came.push(id)
    if (!last) putMembers(db, segment.id, came.splice(0))
    yield
  }
  const moves = last ? namedMoves() : []
  yield
  transact(db, () => {
    recordDay(db, segment, { day, at: now, came, went, moves })
    if (last?.version === segment.version) also({ came, went })
  })

  function namedMoves(): Move[] {
    const changed = last!.version !== segment.version
    const cause = causeAsker(segment.rule, readCatalog(db), asked, { ...asked, now: last!.at })
    return [...came.slice(0, NAMED), ...went.slice(0, NAMED)].flatMap((personId, i) => {
      const person = factsOf(db, personId)
      const why = changed ? RULE_CHANGED : person && cause(person)
      return person ? [{ personId, came: i < Math.min(came.length, NAMED), why }] : []
    })
  }
}

/** Why everybody moves on the day a rule was changed. */
export const RULE_CHANGED = 'the rule was changed'

/** Writes a day of a segment: its size follows from who came and went. */
export function recordDay(
  db: Database,
  segment: { id: number; version: number },
  of: {
    day: Day
    at: number
    came: readonly number[]
    went: readonly number[]
    moves: readonly Move[]
  },
) {
  transact(db, () => {
    putMembers(db, segment.id, of.came)
    for (const person of of.went)
      run(
        db,
        q
          .deleteFrom('segment_people')
          .where('segment_id', '=', segment.id)
          .where('person_id', '=', person),
      )
    const size = one(
      db,
      q
        .selectFrom('segment_people')
        .select((eb) => eb.fn.countAll<number>().as('n'))
        .where('segment_id', '=', segment.id),
    )!.n
    const counted = { at: of.at, size, version: segment.version }
    run(
      db,
      q
        .insertInto('segment_days')
        .values({
          segment_id: segment.id,
          day: of.day,
          came: of.came.length,
          went: of.went.length,
          ...counted,
        })
        .onConflict((c) => c.columns(['segment_id', 'day']).doUpdateSet(counted)),
    )
    for (const { personId, came, why } of of.moves)
      run(
        db,
        q
          .insertInto('segment_moves')
          .values({
            segment_id: segment.id,
            day: of.day,
            person_id: personId,
            came: came ? 1 : 0,
            why,
          })
          .onConflict((c) => c.doNothing()),
      )
    const old = all(
      db,
      q
        .selectFrom('segment_days')
        .select('day')
        .where('segment_id', '=', segment.id)
        .orderBy('day', 'desc')
        .limit(1)
        .offset(NAMES_STAY),
    )[0]
    if (old)
      run(
        db,
        q
          .deleteFrom('segment_moves')
          .where('segment_id', '=', segment.id)
          .where('day', '<=', old.day),
      )
  })
}

function putMembers(db: Database, segmentId: number, ids: readonly number[]) {
  const put = db.sqlite.prepare(
    'insert or ignore into segment_people (segment_id, person_id) select ?, id from people where id = ?',
  )
  transact(db, () => {
    for (const id of ids) put.run(segmentId, id)
  })
}

/** A segment's size by day, and why people came and went in the last two weeks, with the latest of them by name. */
export function trendOf(db: Database, segmentId: number, days = 90) {
  const found = all(
    db,
    q
      .selectFrom('segment_days')
      .select(['day', 'size', 'came', 'went'])
      .where('segment_id', '=', segmentId)
      .orderBy('day', 'desc')
      .limit(days),
  ).reverse()
  const reasons = all(
    db,
    q
      .selectFrom('segment_moves')
      .select((eb) => ['came', 'why', eb.fn.countAll<number>().as('n'), eb.fn.max('day').as('day')])
      .where('segment_id', '=', segmentId)
      .where('day', '>', found.at(-15)?.day ?? '')
      .groupBy(['came', 'why'])
      .orderBy('n', 'desc')
      .limit(12),
  )
  const ranked = q
    .selectFrom('segment_moves')
    .select(['day', 'came', 'why', 'person_id'])
    .select((eb) =>
      eb.fn
        .agg<number>('row_number')
        .over((over) => over.partitionBy(['came', 'why']).orderBy('day', 'desc'))
        .as('place'),
    )
    .where('segment_id', '=', segmentId)
  const people = all(
    db,
    q
      .selectFrom(ranked.as('m'))
      .innerJoin('people', 'people.id', 'm.person_id')
      .select(['m.day', 'm.came', 'm.why', 'people.id', 'address', 'first_name', 'last_name'])
      .where('m.place', '<=', SHOWN)
      .orderBy('m.day', 'desc')
      .orderBy('m.came', 'desc'),
  ).map(({ first_name, last_name, address, came, ...rest }) => ({
    ...rest,
    came: came === 1,
    name: nameOrAddress({ first_name, last_name, address }),
  }))
  return {
    days: found,
    reasons: reasons.map(({ came, why, n }) => ({ came: came === 1, why, n })),
    people,
  }
}
