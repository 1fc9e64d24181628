import { all, q, run, type Database } from '../query'
import { wordingId } from '../wordings'
import type { OwnChange } from './schema'

/** How a reader came to change something: what they pressed, by which mailing's link, from where. */
export interface OwnAct {
  wording: string
  mailingId: number | null
  ip: string | null
  agent: string | null
}

/** Keeps what a reader changed by themselves, in the transaction that changes it. `detail`: what came of it, in words. */
export function recordOwnChange(
  db: Database,
  personId: number,
  { what, detail, wording, mailingId, ip, agent }: OwnAct & { what: OwnChange; detail: string },
  now: number,
) {
  run(
    db,
    q.insertInto('own_changes').values({
      person_id: personId,
      at: now,
      what,
      detail: detail.slice(0, 500),
      wording_id: wordingId(db, wording),
      mailing_id: mailingId,
      ip,
      agent: agent?.slice(0, 300) ?? null,
    }),
  )
}

/** Everything somebody changed by themselves, the latest first. */
export function ownChangesOf(db: Database, personId: number) {
  return all(
    db,
    q
      .selectFrom('own_changes as c')
      .innerJoin('wordings as w', 'w.id', 'c.wording_id')
      .select(['c.at', 'c.what', 'c.detail', 'w.text as wording', 'c.ip', 'c.agent'])
      .where('c.person_id', '=', personId)
      .orderBy('c.id', 'desc'),
  )
}

/** What one person changed becomes another's, as two become one. */
export function moveOwnChanges(db: Database, gone: number, kept: number) {
  const theirs = q.selectFrom('own_changes').selectAll().where('person_id', '=', gone)
  for (const { id: _, ...row } of all(db, theirs))
    run(db, q.insertInto('own_changes').values({ ...row, person_id: kept }))
}
