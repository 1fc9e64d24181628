import { sql } from 'kysely'
import type { MailedStart, Starting } from '../../core/sequences'
import { all, one, q, raw, run, type Database } from '../query'
import { markOf } from './marks'

/** What is noted when it happens to somebody: see the migration of cues. */
type Watch = [what: string, key: string]

/** What a start has to have noted; null: it reads a record of its own. */
export function watchOf(start: Starting): Watch | null {
  switch (start.is) {
    case 'tag':
      return [start.gets ? 'tagged' : 'untagged', String(start.tagId)]
    case 'field':
      return ['field', start.field]
    case 'mailed':
      return [start.did === 'not opened' ? 'sent' : start.did, String(start.mailingId)]
    default:
      return null
  }
}

/** What of a record of cues is a start's, also those that were noted for one sequence alone. */
export const cuesOf = (sequenceId: number, [what, key]: Watch) =>
  sql<boolean>`e.what in (${what}, ${alone(sequenceId)}) and e.key = ${key}`

const alone = (sequenceId: number) => `before ${sequenceId}`

/** Notes from now on what these starts of running sequences wait for, and nothing else. */
export function watchFor(db: Database, starts: readonly Starting[]) {
  run(db, q.deleteFrom('cue_watches'))
  for (const start of starts) {
    const watch = watchOf(start)
    if (watch)
      run(
        db,
        q
          .insertInto('cue_watches')
          .values({ what: watch[0], key: watch[1] })
          .onConflict((c) => c.doNothing()),
      )
  }
}

/** Who was sent a mailing so lately that they may still open it in time is waited for, too. */
export function noteSentBefore(db: Database, sequenceId: number, start: MailedStart, now: number) {
  const lately = sql`select person_id, ${alone(sequenceId)}, mailing_id, accepted_at from recipients
    where mailing_id = ${start.mailingId} and accepted_at > ${now - start.within} order by accepted_at`
  run(db, raw(sql`insert into cues (person_id, what, key, at) ${lately}`))
}

/** Forgets what all running sequences have read. */
export function forgetCues(
  db: Database,
  running: readonly { id: number; map: { start: { by: readonly Starting[] } } }[],
) {
  const marks = running.flatMap(({ id, map }) =>
    map.start.by.flatMap((start, n) => (watchOf(start) ? [markOf(db, id, n)] : [])),
  )
  const upto = marks.length ? Math.min(...marks) : Number.MAX_SAFE_INTEGER
  run(db, q.deleteFrom('cues').where('id', '<=', upto))
}

/** Who was sent a mailing, has had their time, and neither opened nor clicked. */
export function unopened(
  db: Database,
  sequenceId: number,
  start: MailedStart,
  { upto, now, most }: { upto: number; now: number; most: number },
) {
  const isAwaited = cuesOf(sequenceId, watchOf(start)!)
  const rows = all(
    db,
    raw(sql<{ id: number; person: number; ripe: number; read: number }>`
      select e.id as id, e.person_id as person, e.at + ${start.within} <= ${now} as ripe,
        coalesce(r.opened_at, r.clicked_at) is not null as read
      from cues as e left join recipients as r
        on r.mailing_id = ${start.mailingId} and r.person_id = e.person_id and r.round = 0
      where e.id > ${upto} and ${isAwaited} order by e.id limit ${most}`),
  )
  const first = rows.findIndex(({ ripe }) => !ripe)
  const had = first === -1 ? rows : rows.slice(0, first)
  return {
    comers: had.filter(({ read }) => !read).map(({ person }) => ({ person, by: null })),
    upto: had.at(-1)?.id ?? upto,
    more: had.length === most,
  }
}

/** When somebody who was sent a mailing has had their time; null where nobody is waited for. */
export function nextUnopened(
  db: Database,
  sequenceId: number,
  start: MailedStart,
  upto: number,
): number | null {
  const isAwaited = cuesOf(sequenceId, watchOf(start)!)
  const first = one(
    db,
    raw(
      sql<{
        at: number
      }>`select e.at as at from cues as e where e.id > ${upto} and ${isAwaited} order by e.id limit 1`,
    ),
  )
  return first ? first.at + start.within : null
}
