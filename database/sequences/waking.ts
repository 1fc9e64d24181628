import { sql } from 'kysely'
import { one, q, raw, run, transact, type Database } from '../query'

/**
 * Whoever waits for something to happen, and did something since, is due now: whether it was what they wait for is seen
 * when their step is carried out. What comes in is read on from where it was read last.
 */
export function wakeWho(db: Database, now: number) {
  transact(db, () => {
    const waits = one(db, raw(sql`select 1 from enrolments where wakes = 1 limit 1`)) !== undefined
    for (const record of ['events', 'orders'] as const) {
      const last = one(
        db,
        raw(sql<{ id: number }>`select coalesce(max(id), 0) as id from ${sql.table(record)}`),
      )!.id
      const from = wokenUpTo(db, record)
      if (last === from) continue
      if (waits)
        run(
          db,
          raw(sql`update enrolments set due = ${now} where wakes = 1 and due > ${now} and person_id in (
            select person_id from ${sql.table(record)} where id > ${from} and id <= ${last})`),
        )
      run(
        db,
        q
          .insertInto('woken_up_to')
          .values({ record, upto: last })
          .onConflict((c) => c.column('record').doUpdateSet({ upto: last })),
      )
    }
  })
}

function wokenUpTo(db: Database, record: 'events' | 'orders'): number {
  const found = q.selectFrom('woken_up_to').select('upto').where('record', '=', record)
  return one(db, found)?.upto ?? 0
}

/** Somebody opened or clicked: if they wait for something to happen, they are due now. */
export function wakePerson(db: Database, person: number, now: number) {
  run(
    db,
    q
      .updateTable('enrolments')
      .set({ due: now })
      .where(sql<boolean>`wakes = 1`)
      .where('person_id', '=', person)
      .where('due', '>', now),
  )
}
