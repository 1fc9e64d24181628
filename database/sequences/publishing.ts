import { kindOfStep, type SequenceMap, type Step } from '../../core/sequences'
import { all, q, run, transact, type Database } from '../query'
import { zoneOf } from './entering'
import { arrivalFacts, placeRow } from './places'
import { mapOfVersion, sequenceById, type Sequence } from './sequences'

/** Those inside who stand at one step of one version, and whether they could go on by the map as it is drawn now. */
export interface Standing {
  version: number
  /** Null: the step is on no map any more. */
  step: Step | null
  people: number
  moves: boolean
}

/** Who stands where, by version, as far as that is not the map as it is drawn now. */
export function whoGoesWhere(db: Database, sequence: Sequence): Standing[] {
  const found = q
    .selectFrom('sequence_standing')
    .select(['version', 'place', 'people'])
    .where('sequence_id', '=', sequence.id)
    .where('state', '=', 'inside')
    .where('people', '>', 0)
    .orderBy('version', 'desc')
  return all(db, found).map(({ version, place, people }) => {
    const step = mapOfVersion(db, sequence.id, version).steps[place] ?? null
    return { version, step, people, moves: stillThere(sequence.map, place, step) }
  })
}

/** Whether who stands at a step of another version can go on from it: it is on the map, and of the same kind. */
const stillThere = (map: SequenceMap, id: string, before: Step | null | undefined) =>
  map.steps[id] !== undefined && map.steps[id]!.kind === before?.kind

/** So many at a time, so that no transaction is long. */
const MOVED = 1_000

/**
 * Moves some of those inside to a version, behind those up to `after` by number, where their step is still there: up to whom,
 * or null where nobody is left, or the version is not the one people come in by any more. How long a changed wait takes is
 * reckoned anew from when they came to it. What they got they do not get again: mail is once a round.
 */
export function moveSomeInside(
  db: Database,
  sequenceId: number,
  version: number,
  after: number,
  now: number,
): number | null {
  return transact(db, () => {
    const sequence = sequenceById(db, sequenceId)
    if (sequence?.version !== version) return null
    const map = mapOfVersion(db, sequenceId, version)
    const before = new Map<number, SequenceMap>()
    const zone = zoneOf(db)
    const inside = q
      .selectFrom('enrolments')
      .where('sequence_id', '=', sequenceId)
      .where('person_id', '>', after)
      .where('state', '=', 'inside')
      .orderBy('person_id')
    // Nobody's rounds are taken apart.
    const upto = all(db, inside.select('person_id').limit(MOVED)).at(-1)?.person_id
    if (upto === undefined) return null
    const people = all(db, inside.selectAll().where('person_id', '<=', upto))
    for (const one of people) {
      if (one.version >= version) continue
      if (!before.has(one.version))
        before.set(one.version, mapOfVersion(db, sequenceId, one.version))
      const was = before.get(one.version)!.steps[one.step]
      if (!stillThere(map, one.step, was)) continue
      const step = map.steps[one.step]!
      const isSame =
        JSON.stringify({ ...was, next: null }) === JSON.stringify({ ...step, next: null })
      const reckoned = kindOfStep(step).due
      const { person_id, round, visit, arrived_at: arrived } = one
      const due =
        isSame || !reckoned
          ? one.due
          : reckoned(step, arrived, arrivalFacts(db, person_id, zone, now))
      run(
        db,
        q
          .updateTable('enrolments')
          .set({ version, ...placeRow(map, { step: one.step, due, visit, arrived }) })
          .where('sequence_id', '=', sequenceId)
          .where('person_id', '=', person_id)
          .where('round', '=', round),
      )
    }
    return upto
  })
}
