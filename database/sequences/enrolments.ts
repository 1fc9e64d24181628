import { sql } from 'kysely'
import { advance, enter, mailAhead, type Place, type SequenceMap } from '../../core/sequences'
import { ruleToPredicate } from '../../core/segments'
import { factsOf, askedAt, readyNow } from '../segments'
import { isSuppressed, subscriptionState } from '../people'
import { all, one, q, run, transact, type Database } from '../query'
import { ownLimitsOf } from '../readers'
import { addRecipient } from '../sending'
import { mapOfVersion, sequenceById, type Sequence } from './sequences'

/** Records are read in parts, so that no transaction is long. */
const BATCH = 2_000
const ADVANCED = 500

/**
 * Lets in who newly did what starts a sequence, read on from where it was read last, and says whether there is more.
 * Nobody comes in twice, nor by an import that was not meant to start anything, nor who has left again since.
 */
export function enrolNew(
  db: Database,
  sequence: Sequence,
  now: number,
): { entered: number; more: boolean } {
  return transact(db, () => {
    const { when, rule } = sequence.map.start
    const found = when.is === 'joined' ? joined(db, sequence) : did(db, sequence, when.name)
    if (found.length === 0) return { entered: 0, more: false }
    const asks = rule && ruleToPredicate(readyNow(db, rule), askedAt(db, now))
    const map = mapOfVersion(db, sequence.id, sequence.version)
    const place = enter(map, now)
    let entered = 0
    for (const { person } of found) {
      if (place === null || person === null || !mayBeInside(db, sequence, person)) continue
      if (asks && !asks(factsOf(db, person)!)) continue
      entered += enrol(db, sequence, person, place, now)
    }
    const column = when.is === 'joined' ? 'evidence_read' : 'events_read'
    const read = q.updateTable('sequences').set({ [column]: found.at(-1)!.id })
    run(db, read.where('id', '=', sequence.id))
    return { entered, more: found.length === BATCH }
  })
}

/**
 * Lets somebody into a sequence by hand, or by what they did elsewhere: whether they came in. They must be subscribed to
 * its list and fit its rule, and nobody comes in twice.
 */
export function enrolPerson(db: Database, id: number, person: number, now: number): boolean {
  const sequence = sequenceById(db, id)
  if (sequence?.state !== 'running' || !mayBeInside(db, sequence, person)) return false
  const { rule } = sequence.map.start
  const place = enter(mapOfVersion(db, id, sequence.version), now)
  if (place === null) return false
  if (rule && !ruleToPredicate(readyNow(db, rule), askedAt(db, now))(factsOf(db, person)!))
    return false
  return enrol(db, sequence, person, place, now) === 1
}

/** Who joined the sequence's list since it was read last; `person` null: by an import that starts nothing. */
function joined(db: Database, { list_id, evidence_read }: Sequence) {
  return all(
    db,
    q
      .selectFrom('evidence as e')
      .leftJoin('imports as i', (join) =>
        join.on('e.way', '=', 'import').on(sql<boolean>`i.id = cast(e.way_ref as integer)`),
      )
      .select('e.id')
      .select(
        sql<number | null>`case when e.list_id = ${list_id} and e.state = 'subscribed'
          and e.way <> 'merged' and coalesce(i.starts_sequences, 1) = 1 then e.person_id end`.as(
          'person',
        ),
      )
      .where('e.id', '>', evidence_read)
      .orderBy('e.id')
      .limit(BATCH),
  )
}

function did(db: Database, { events_read }: Sequence, name: string) {
  return all(
    db,
    q
      .selectFrom('events as e')
      .select('e.id')
      .select(sql<number | null>`case when e.name = ${name} then e.person_id end`.as('person'))
      .where('e.id', '>', events_read)
      .orderBy('e.id')
      .limit(BATCH),
  )
}

function mayBeInside(db: Database, { list_id }: Sequence, person: number): boolean {
  return subscriptionState(db, person, list_id!) === 'subscribed' && !isSuppressed(db, person)
}

function enrol(db: Database, { id, version }: Sequence, person: number, place: Place, now: number) {
  return run(
    db,
    q
      .insertInto('enrolments')
      .values({ sequence_id: id, person_id: person, version, ...place, entered_at: now })
      .onConflict((c) => c.doNothing()),
  ).changes
}

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
        .select('s.list_id')
        .where('s.state', '=', 'running')
        .where(isInside)
        .where('n.due', '<=', now)
        .orderBy('n.due')
        .limit(ADVANCED),
    )
    const maps = new Map<string, SequenceMap>()
    for (const { sequence_id, person_id, version, list_id, ...place } of due) {
      const key = `${sequence_id} ${version}`
      const map = maps.get(key) ?? mapOfVersion(db, sequence_id, version)
      maps.set(key, map)
      const facts = {
        subscribed: subscriptionState(db, person_id, list_id!) === 'subscribed',
        suppressed: isSuppressed(db, person_id),
        pausedUntil: ownLimitsOf(db, person_id).pausedUntil,
      }
      const { effects, next, ended } = advance(map, place, facts, now)
      for (const { mailingId } of effects) addRecipient(db, mailingId, person_id, now)
      const change = ended ? { ...ended, ended_at: now } : next!
      run(
        db,
        q
          .updateTable('enrolments')
          .set(change)
          .where('sequence_id', '=', sequence_id)
          .where('person_id', '=', person_id),
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
      .selectFrom('enrolments')
      .select(['step', (eb) => eb.fn.countAll<number>().as('n')])
      .where('sequence_id', '=', sequenceId)
      .where('state', '=', 'inside')
      .groupBy('step'),
  )
  return Object.fromEntries(rows.map(({ step, n }) => [step, n]))
}

/** Who is inside, who moves next first. */
export function peopleInside(db: Database, sequenceId: number, limit: number) {
  return all(
    db,
    q
      .selectFrom('enrolments as n')
      .innerJoin('people as p', 'p.id', 'n.person_id')
      .select(['p.id', 'p.address', 'p.first_name', 'p.last_name'])
      .select(['n.step', 'n.due', 'n.version', 'n.entered_at'])
      .where('n.sequence_id', '=', sequenceId)
      .where('n.state', '=', 'inside')
      .orderBy('n.due')
      .limit(limit),
  )
}
