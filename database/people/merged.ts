import { all, one, q, run, type Database } from '../query'

/** Whoever somebody is now: the person they were merged with, or themselves. Tokens in letters name people as they were when it was sent. */
export function personNow(db: Database, id: number): number {
  const merged = q.selectFrom('merged_people').select('kept_id').where('gone_id', '=', id)
  return one(db, merged)?.kept_id ?? id
}

/** Keeps that `gone` is `kept` from now on, as is everybody that `gone` had become. */
export function rememberMerge(db: Database, gone: number, kept: number) {
  const before = q.selectFrom('merged_people').select('gone_id').where('kept_id', '=', gone)
  for (const { gone_id } of [...all(db, before), { gone_id: gone }])
    run(
      db,
      q
        .insertInto('merged_people')
        .values({ gone_id, kept_id: kept })
        .onConflict((c) => c.column('gone_id').doUpdateSet({ kept_id: kept })),
    )
}
