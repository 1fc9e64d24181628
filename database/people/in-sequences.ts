import { all, q, run, type Database } from '../query'

/** Every sequence somebody came into, the latest first. */
export function enrolmentsOf(db: Database, personId: number) {
  return all(
    db,
    q
      .selectFrom('enrolments as n')
      .innerJoin('sequences as s', 's.id', 'n.sequence_id')
      .select(['s.id', 's.name', 'n.state', 'n.why', 'n.entered_at', 'n.ended_at'])
      .select('n.round')
      .where('n.person_id', '=', personId)
      .orderBy('n.entered_at', 'desc'),
  )
}

/** What somebody was inside of becomes another's; of a round that both had, the kept one's stays. */
export function moveEnrolments(db: Database, gone: number, kept: number) {
  const theirs = q.selectFrom('enrolments').selectAll().where('person_id', '=', gone)
  for (const row of all(db, theirs)) {
    const { changes } = run(
      db,
      q
        .insertInto('enrolments')
        .values({ ...row, person_id: kept })
        .onConflict((c) => c.doNothing()),
    )
    if (!changes) continue
    for (const table of ['sequence_trail', 'hand_overs'] as const)
      run(
        db,
        q
          .updateTable(table)
          .set({ person_id: kept })
          .where('sequence_id', '=', row.sequence_id)
          .where('person_id', '=', gone)
          .where('round', '=', row.round),
      )
  }
  run(db, q.updateTable('team_tellings').set({ person_id: kept }).where('person_id', '=', gone))
  run(db, q.deleteFrom('enrolments').where('person_id', '=', gone))
}
