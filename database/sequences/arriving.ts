import { one, q, rowsInserter, transact, type Database } from '../query'
import { runningSequences } from './sequences'

/** Lets people in as soon as the engine comes to it, as far as they may; `start` null: by hand. */
export function letInSoon(
  db: Database,
  sequenceId: number,
  start: number | null,
  people: readonly number[],
  now: number,
) {
  const insert = rowsInserter(db, 'sequence_arrivals', ['sequence_id', 'start', 'person_id', 'at'])
  transact(db, () => insert(people.map((person) => [sequenceId, start, person, now])))
}

/** Who came into a segment, or left it, comes into the running sequences that begin so. In its caller's transaction. */
export function arrivedBySegment(
  db: Database,
  segmentId: number,
  moved: { came: readonly number[]; went: readonly number[] },
  now: number,
) {
  for (const { id, map } of runningSequences(db))
    for (const [n, start] of map.start.by.entries())
      if (start.is === 'segment' && start.segmentId === segmentId)
        letInSoon(db, id, n, start.comes ? moved.came : moved.went, now)
}

/** How many wait to be let in. */
export function arrivalsOf(db: Database, sequenceId: number): number {
  const waiting = q
    .selectFrom('sequence_arrivals')
    .select((eb) => eb.fn.countAll<number>().as('n'))
    .where('sequence_id', '=', sequenceId)
  return one(db, waiting)!.n
}
