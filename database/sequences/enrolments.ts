import { sql } from 'kysely'
import {
  turnOf,
  advance,
  BACK,
  lotOf,
  mailAhead,
  type Happening,
  type Place,
  type SequenceMap,
} from '../../core/sequences'
import { afterQuiet } from '../../core/time'
import { quietHours } from '../account'
import { bestHourOfEach } from '../mailings'
import { isSuppressed, subscriptionState } from '../people'
import { all, each, one, preparedOnce, q, transact, type Database } from '../query'
import { ownLimitsOf } from '../readers'
import { recipientAdder } from '../sending'
import { carryOut, passingBy } from './carry-out'
import { zoneOf } from './entering'
import { happeningsAt } from './happened'
import { fieldsOfEach, placeRow } from './places'
import { mapOfVersion } from './sequences'
import { roomAt } from './room'
import { sharesNow } from './split-shares'

/** So many people at a time, and so many steps of each, so that no transaction is long. */
const ADVANCED = 500
const AT_ONCE = 20

/**
 * Carries out the steps that are due for some of those inside running sequences; of how many. What steps do and where their
 * person stands then is one transaction, so that each step is carried out once, whenever the engine ends. A person goes on
 * as far as they are due, unless a step did with them what may change how they stand: then their next is carried out anew.
 */
export function advanceDue(db: Database, now: number): number {
  return transact(db, () => {
    const due = all(
      db,
      q
        .selectFrom('enrolments as n')
        .innerJoin('sequences as s', 's.id', 'n.sequence_id')
        .select(['n.sequence_id', 'n.person_id', 'n.version', 'n.step', 'n.due', 'n.visit'])
        .leftJoin('subscriptions as l', (join) =>
          join.onRef('l.person_id', '=', 'n.person_id').onRef('l.list_id', '=', 's.list_id'),
        )
        .leftJoin('set_aside as a', 'a.person_id', 'n.person_id')
        .leftJoin('own_limits as o', 'o.person_id', 'n.person_id')
        .select(['n.arrived_at as arrived', 'n.entered_at', 'n.round', 's.list_id', 's.name'])
        .select(['s.resumed_at', 's.spread'])
        .select(['l.state as listed', 'a.at as suppressedAt', 'o.paused_until as pausedUntil'])
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
    const room = roomAt(db, now)
    const quiet = quietHours(db)
    const quietUntil = quiet ? afterQuiet(now, quiet, zone) : now
    const fields = fieldsOfEach(db)
    const bestHour = bestHourOfEach(db, now)
    const mails = recipientAdder(db, now)
    const passing = passingBy(db)
    const met = new Set<number>()
    for (const of of due) {
      const { sequence_id, person_id, round, version, list_id, entered_at, name } = of
      const ofTurn = { sequence: sequence_id, person: person_id, round }
      const turn = turnOf(of.due, { at: of.resumed_at, spread: of.spread }, ofTurn)
      if (turn > now) {
        waited(db).run({ sequence_id, person_id, round, due: turn })
        continue
      }
      const key = `${sequence_id} ${version}`
      const map = maps.get(key) ?? mapOfVersion(db, sequence_id, version)
      maps.set(key, map)
      const asks = happened(map, { sequence_id, person_id, round, entered_at })
      const facts = {
        zone,
        subscribed: of.listed === 'subscribed',
        suppressed: of.suppressedAt !== null,
        pausedUntil: of.pausedUntil,
        fieldOf(field: string) {
          return fields(person_id, field)
        },
        bestHour(of: string) {
          return bestHour(person_id, of)
        },
        roomFrom() {
          return room(person_id)
        },
        quietUntil() {
          return quietUntil
        },
        holds(what: Happening, within?: number) {
          return asks(what, within)
        },
        wentBack(step: string) {
          return timesBack(db).one({ sequence_id, person_id, round, step })!.times
        },
        lot(step: string) {
          return lotOf(sequence_id, step, person_id, round)
        },
        sharesOf(step: string) {
          return shares(sequence_id, step, map)
        },
      }
      const ofRound = { sequence_id, person_id, round }
      // What a step did with somebody just now, may have changed what holds for their next.
      let isAnew = met.has(person_id)
      met.add(person_id)
      // Also that it took them out of this one.
      if (isAnew && stateOf(db).one(ofRound)?.state !== 'inside') continue
      let place: Place = { step: of.step, due: of.due, arrived: of.arrived, visit: of.visit }
      for (let steps = 0; ; steps++) {
        if (isAnew) {
          facts.subscribed = subscriptionState(db, person_id, list_id!) === 'subscribed'
          facts.suppressed = isSuppressed(db, person_id)
          facts.pausedUntil = ownLimitsOf(db, person_id).pausedUntil
        }
        const { effects, next, ended, passed } = advance(map, place, facts, now)
        for (let act = 0; act < effects.length; act++) {
          const effect = effects[act]!
          const { step, visit } = place
          const at = { sequenceId: sequence_id, person: person_id, round, step, visit, act }
          carryOut(db, effect, at, { list: list_id!, sequence: name, mails }, now)
          isAnew ||= effect.is !== 'mail'
        }
        if (passed) passing.pass(of, passed, place.visit, now)
        if (ended) {
          const step = ended.why === 'goal' ? passed!.step : place.step
          cameOut(db).run({ ...ofRound, ...ended, step, now })
          break
        }
        place = next!
        const isDue = passed !== null && place.due <= now && steps < AT_ONCE
        if (isDue && !isAnew) continue
        wentOn(db).run({ ...ofRound, ...placeRow(map, place) })
        break
      }
    }
    mails.count()
    passing.count()
    return due.length
  })
}

interface RoundKey {
  sequence_id: number
  person_id: number
  round: number
}

/** Who goes back waits a day at least before they could again, so all of it has been written. */
const timesBack = preparedOnce<RoundKey & { step: string }, { times: number }>((value) =>
  q
    .selectFrom('sequence_trail')
    .select((eb) => eb.fn.countAll<number>().as('times'))
    .where('sequence_id', '=', value('sequence_id'))
    .where('person_id', '=', value('person_id'))
    .where('round', '=', value('round'))
    .where('step', '=', value('step'))
    .where('way', '=', BACK),
)
const stateOf = preparedOnce<RoundKey, { state: string }>((value) =>
  q
    .selectFrom('enrolments')
    .select('state')
    .where('sequence_id', '=', value('sequence_id'))
    .where('person_id', '=', value('person_id'))
    .where('round', '=', value('round')),
)
const waited = preparedOnce<RoundKey & { due: number }>((value) =>
  q
    .updateTable('enrolments')
    .set({ due: value('due') })
    .where('sequence_id', '=', value('sequence_id'))
    .where('person_id', '=', value('person_id'))
    .where('round', '=', value('round')),
)
const wentOn = preparedOnce<RoundKey & ReturnType<typeof placeRow>>((value) =>
  q
    .updateTable('enrolments')
    .set({
      ...{ step: value('step'), due: value('due'), visit: value('visit') },
      ...{ arrived_at: value('arrived_at'), wakes: value('wakes') },
    })
    .where('sequence_id', '=', value('sequence_id'))
    .where('person_id', '=', value('person_id'))
    .where('round', '=', value('round')),
)
const cameOut = preparedOnce<
  RoundKey & { state: string; why: string | null; step: string; now: number }
>((value) =>
  q
    .updateTable('enrolments')
    .set({
      ...{ state: value('state'), why: value('why'), step: value('step') },
      ...{ wakes: 0, ended_at: value('now') },
    })
    .where('sequence_id', '=', value('sequence_id'))
    .where('person_id', '=', value('person_id'))
    .where('round', '=', value('round')),
)

/** As the partial index `enrolments_due` says it. */
const isInside = sql<boolean>`n.state = 'inside'`

/**
 * The mail that everybody inside is still to get before a time, as things stand; `isHeld`: the sequence is paused.
 */
export function eachMailAhead(
  db: Database,
  now: number,
  before: number,
  take: (person: number, at: number, isHeld: boolean, sequence: number) => void,
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
  for (const { sequence_id, person_id, version, step, due, state } of each(db, inside)) {
    const key = `${sequence_id} ${version} ${step}`
    const mails = ahead.get(key) ?? mailAhead(mapOfVersion(db, sequence_id, version), step)
    ahead.set(key, mails)
    for (const { after } of mails) {
      take(person_id, Math.max(due, now) + after, state === 'paused', sequence_id)
    }
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
