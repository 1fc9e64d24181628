import { one, q, type Database } from '../query'

/** No more are counted of those who wait: that is told as "more than". */
export const MOST_COUNTED = 100_000

/** How many inside a sequence are due already, as long as it is paused: they go on when it does. */
export function waitingToGoOn(db: Database, sequenceId: number, now: number): number {
  const some = q
    .selectFrom('enrolments')
    .select('person_id')
    .where('sequence_id', '=', sequenceId)
    .where('state', '=', 'inside')
    .where('due', '<=', now)
    .limit(MOST_COUNTED + 1)
    .as('some')
  return one(
    db,
    q.selectFrom(some).select((eb) => eb.fn.countAll<number>().as('n')),
  )!.n
}
