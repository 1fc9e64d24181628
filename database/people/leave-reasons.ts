import type { Addressed } from '../../core/delivery'
import type { LeaveReason } from '../../core/results'
import { all, one, q, run, transact, type Database } from '../query'

/** Keeps why somebody left by a mailing; only of those who did. What they said last stands. */
export function tellWhyLeft(
  db: Database,
  { mailingId, personId, round }: Addressed,
  reason: LeaveReason,
  words: string,
  at: number,
) {
  transact(db, () => {
    const left = q
      .selectFrom('recipients')
      .select('left_at')
      .where('mailing_id', '=', mailingId)
      .where('person_id', '=', personId)
      .where('round', '=', round)
      .where('left_at', 'is not', null)
    if (!one(db, left)) return
    run(
      db,
      q
        .insertInto('leave_reasons')
        .values({ mailing_id: mailingId, person_id: personId, round, reason, words, at })
        .onConflict((c) =>
          c.columns(['mailing_id', 'person_id', 'round']).doUpdateSet({ reason, words, at }),
        ),
    )
  })
}

/** Why people said they left by a mailing, most said first. */
export function reasonsOfLeaving(db: Database, mailingId: number) {
  return all(
    db,
    q
      .selectFrom('leave_reasons')
      .select(['reason', (eb) => eb.fn.countAll<number>().as('n')])
      .where('mailing_id', '=', mailingId)
      .groupBy('reason')
      .orderBy('n', 'desc'),
  )
}
