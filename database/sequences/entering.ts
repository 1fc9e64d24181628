import { sql } from 'kysely'
import { enter, type Place } from '../../core/sequences'
import { ruleToPredicate } from '../../core/segments'
import { readAccount } from '../account'
import { isSuppressed, subscriptionState } from '../people'
import { all, q, run, transact, type Database } from '../query'
import { askedAt, factsOf, readyNow } from '../segments'
import { mapOfVersion, sequenceById, type Sequence } from './sequences'

/** Records are read in parts, so that no transaction is long. */
const BATCH = 2_000

/** Whose days and hours count. */
export const zoneOf = (db: Database): string => readAccount(db)?.zone ?? 'UTC'

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
    const place = enter(map, now, zoneOf(db))
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
  const place = enter(mapOfVersion(db, id, sequence.version), now, zoneOf(db))
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
