import { sql } from 'kysely'
import { advance, lotOf, mailAhead, type Happening, type SequenceMap } from '../../core/sequences'
import { isSuppressed, subscriptionState } from '../people'
import { all, one, q, run, transact, type Database } from '../query'
import { ownLimitsOf } from '../readers'
import { carryOut, countPassed } from './carry-out'
import { zoneOf } from './entering'
import { happeningsAt } from './happened'
import { arrivalFacts, placeRow } from './places'
import { mapOfVersion } from './sequences'
import { sharesNow } from './split-shares'

/** So many at a time, so that no transaction is long. */
const ADVANCED = 500

/**
 * Carries out the steps that are due for some of those inside running sequences; how many. What a step does and where
 * its person stands then is one transaction, so that each step is carried out once, whenever the engine ends.
 */
export function advanceDue(db: Database, now: number): number {
  return transact(db, () => {
    const due = all(
      db,
      q
        .selectFrom('enrolments as n')
        .innerJoin('sequences as s', 's.id', 'n.sequence_id')
        .select(['n.sequence_id', 'n.person_id', 'n.version', 'n.step', 'n.due', 'n.visit'])
        .select(['n.arrived_at as arrived', 'n.entered_at', 'n.round', 's.list_id', 's.name'])
        .where('s.state', '=', 'running')
        .where(isInside)
        .where('n.due', '<=', now)
        .orderBy('n.due')
        .limit(ADVANCED),
    )
    const maps = new Map<string, SequenceMap>()
    const zone = zoneOf(db)
    const happened = happeningsAt(db, now)
    const shares = sharesNow(db)
    for (const of of due) {
      const { sequence_id, person_id, round, version, list_id, entered_at, name, ...place } = of
      const key = `${sequence_id} ${version}`
      const map = maps.get(key) ?? mapOfVersion(db, sequence_id, version)
      maps.set(key, map)
      const facts = {
        subscribed: subscriptionState(db, person_id, list_id!) === 'subscribed',
        suppressed: isSuppressed(db, person_id),
        pausedUntil: ownLimitsOf(db, person_id).pausedUntil,
        holds: (what: Happening) => happened(map, { person_id, round, entered_at }, what),
        lot: (step: string) => lotOf(sequence_id, step, person_id, round),
        sharesOf: (step: string) => shares(sequence_id, step, map),
        ...arrivalFacts(db, person_id, zone),
      }
      const { effects, next, ended, passed } = advance(map, place, facts, now)
      for (const effect of effects)
        carryOut(db, effect, { person: person_id, round, list: list_id!, sequence: name }, now)
      if (passed)
        countPassed(
          db,
          { sequence_id, person_id, round, version },
          { ...passed, visit: place.visit, at: now },
        )
      const step = ended?.why === 'goal' ? { step: passed!.step } : {}
      const change = ended
        ? { ...ended, ...step, wakes: 0 as const, ended_at: now }
        : placeRow(map, next!)
      run(
        db,
        q
          .updateTable('enrolments')
          .set(change)
          .where('sequence_id', '=', sequence_id)
          .where('person_id', '=', person_id)
          .where('round', '=', round),
      )
    }
    return due.length
  })
}

/** As the partial index `enrolments_due` says it. */
const isInside = sql<boolean>`n.state = 'inside'`

/**
 * The mail that everybody inside is still to get before a time, as things stand; `isHeld`: the sequence is paused.
 */
export function eachMailAhead(
  db: Database,
  now: number,
  before: number,
  take: (person: number, at: number, isHeld: boolean) => void,
) {
  const inside = q
    .selectFrom('enrolments as n')
    .innerJoin('sequences as s', 's.id', 'n.sequence_id')
    .select(['n.sequence_id', 'n.person_id', 'n.version', 'n.step', 'n.due', 's.state'])
    .where('s.state', 'in', ['running', 'paused'])
    .where(isInside)
    .where('n.due', '<', before)
    // Who is unsubscribed or suppressed comes out before they get anything more.
    .where(
      sql<boolean>`exists (select 1 from subscriptions as l where l.person_id = n.person_id and l.list_id = s.list_id and l.state = 'subscribed')`,
    )
    .where(sql<boolean>`not exists (select 1 from set_aside as a where a.person_id = n.person_id)`)
  const ahead = new Map<string, ReturnType<typeof mailAhead>>()
  for (const { sequence_id, person_id, version, step, due, state } of all(db, inside)) {
    const key = `${sequence_id} ${version} ${step}`
    const mails = ahead.get(key) ?? mailAhead(mapOfVersion(db, sequence_id, version), step)
    ahead.set(key, mails)
    for (const { after } of mails) take(person_id, Math.max(due, now) + after, state === 'paused')
  }
}

/** When the next step of anybody inside a running sequence is due; null where there is none. */
export function nextStepDue(db: Database): number | null {
  return (
    one(
      db,
      q
        .selectFrom('enrolments as n')
        .innerJoin('sequences as s', 's.id', 'n.sequence_id')
        .select('n.due')
        .where('s.state', '=', 'running')
        .where(isInside)
        .orderBy('n.due')
        .limit(1),
    )?.due ?? null
  )
}

/** How many stand at each step of a sequence, of all versions. */
export function standingAt(db: Database, sequenceId: number): Record<string, number> {
  const rows = all(
    db,
    q
      .selectFrom('sequence_standing')
      .select(['place', (eb) => eb.fn.sum<number>('people').as('n')])
      .where('sequence_id', '=', sequenceId)
      .where('state', '=', 'inside')
      .where('people', '>', 0)
      .groupBy('place'),
  )
  return Object.fromEntries(rows.map(({ place, n }) => [place, n]))
}

/** How many went by each way out of each step, of all versions; and how many came out by a goal. */
export function trafficOf(db: Database, sequenceId: number) {
  const rows = all(
    db,
    q
      .selectFrom('sequence_traffic')
      .select(['step', 'way', (eb) => eb.fn.sum<number>('people').as('people')])
      .where('sequence_id', '=', sequenceId)
      .groupBy(['step', 'way']),
  )
  const traffic: Record<string, number[]> = {}
  for (const { step, way, people } of rows) (traffic[step] ??= [])[way] = people
  for (const ways of Object.values(traffic))
    for (let way = 0; way < ways.length; way++) ways[way] ??= 0
  return traffic
}

/** Who is inside, who moves next first. */
export function peopleInside(db: Database, sequenceId: number, limit: number) {
  return all(
    db,
    q
      .selectFrom('enrolments as n')
      .innerJoin('people as p', 'p.id', 'n.person_id')
      .select(['p.id', 'p.address', 'p.first_name', 'p.last_name'])
      .select(['n.step', 'n.due', 'n.version', 'n.entered_at', 'n.round'])
      .where('n.sequence_id', '=', sequenceId)
      .where('n.state', '=', 'inside')
      .orderBy('n.due')
      .limit(limit),
  )
}
