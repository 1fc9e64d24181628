import { all, q, run, type Database } from '../query'

/** Keeps what somebody of the team is to be told by mail of who came by a step. */
export function addTelling(
  db: Database,
  of: { sequenceId: number; person: number; to: string; text: string },
  now: number,
) {
  const values = {
    ...{ sequence_id: of.sequenceId, person_id: of.person, recipient: of.to, text: of.text },
    ...{ at: now, due: now },
  }
  run(db, q.insertInto('team_tellings').values(values))
}

/** What is due to be told to one address of one sequence, so that one mail tells it all; at most `limit`. */
export function tellingsDue(db: Database, now: number, limit: number) {
  const due = q
    .selectFrom('team_tellings as t')
    .innerJoin('people as p', 'p.id', 't.person_id')
    .innerJoin('sequences as s', 's.id', 't.sequence_id')
    .select(['t.id', 't.sequence_id', 't.person_id', 't.recipient', 't.text', 't.at'])
    .select(['p.address', 'p.first_name', 'p.last_name', 's.name'])
    .where('t.due', '<=', now)
  const [first] = all(db, due.orderBy('t.due').limit(1))
  if (!first) return []
  return all(
    db,
    due
      .where('t.sequence_id', '=', first.sequence_id)
      .where('t.recipient', '=', first.recipient)
      .orderBy('t.id')
      .limit(limit),
  )
}
export type DueTelling = ReturnType<typeof tellingsDue>[number]

/** They were told, and are gone; or they are told later. */
export function tellingsTold(db: Database, ids: readonly number[], later: number | null) {
  run(
    db,
    later === null
      ? q.deleteFrom('team_tellings').where('id', 'in', ids)
      : q.updateTable('team_tellings').set({ due: later }).where('id', 'in', ids),
  )
}
