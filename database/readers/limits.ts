import { sql, type Expression, type SqlBool } from 'kysely'
import type { OwnLimits } from '../../core/readers'
import { DAY } from '../../core/time'
import { one, preparedOnce, q, run, transact, type Database } from '../query'
import { recordOwnChange, type OwnAct } from './own-changes'

/** What somebody asked for about how much mail they get; null: nothing. */
export function ownLimitsOf(db: Database, personId: number): OwnLimits {
  return limits(db).one({ personId }) ?? { pausedUntil: null, oneInDays: null }
}

const limits = preparedOnce<{ personId: number }, OwnLimits>((value) =>
  q
    .selectFrom('own_limits')
    .select(['paused_until as pausedUntil', 'one_in_days as oneInDays'])
    .where('person_id', '=', value('personId')),
)

/** The last pause somebody asked for, whether or not it is over; null: none. */
export function pauseOf(db: Database, personId: number): { at: number; until: number } | null {
  const asked = q
    .selectFrom('own_limits')
    .select(['paused_at as at', 'paused_until as until'])
    .where('person_id', '=', personId)
    .where('paused_until', 'is not', null)
    .$narrowType<{ at: number; until: number }>()
  return one(db, asked) ?? null
}

/** No mailings for somebody until a time, because they asked for it. */
export function pauseMail(
  db: Database,
  personId: number,
  until: number,
  by: OwnAct & { detail: string },
  now: number,
) {
  transact(db, () => {
    keepLimits(db, personId, { paused_at: now, paused_until: until })
    recordOwnChange(db, personId, { ...by, what: 'paused' }, now)
  })
}

/** Mail again from now on. What of a sequence waited for the end of the pause goes on at once. */
export function endPause(
  db: Database,
  personId: number,
  by: OwnAct & { detail: string },
  now: number,
) {
  transact(db, () => {
    const { pausedUntil } = ownLimitsOf(db, personId)
    if (pausedUntil === null || pausedUntil <= now) return
    keepLimits(db, personId, { paused_until: now })
    for (const [table, state] of [
      ['enrolments', 'inside'],
      ['recipients', 'queued'],
      ['recipients', 'deferred'],
    ] as const)
      run(
        db,
        q
          .updateTable(table)
          .set({ due: now })
          .where('person_id', '=', personId)
          .where('state', '=', state)
          .where('due', '=', pausedUntil),
      )
    recordOwnChange(db, personId, { ...by, what: 'pause-ended' }, now)
  })
}

/** At most one mailing in so many days for somebody; null: as many as there are. */
export function limitMail(
  db: Database,
  personId: number,
  oneInDays: number | null,
  by: OwnAct & { detail: string },
  now: number,
) {
  transact(db, () => {
    if (ownLimitsOf(db, personId).oneInDays === oneInDays) return
    keepLimits(db, personId, { one_in_days: oneInDays })
    recordOwnChange(db, personId, { ...by, what: oneInDays ? 'one-a-week' : 'no-limit' }, now)
  })
}

/** What `gone` asked for holds for `kept` too: the later end, the longer distance. */
export function mergeOwnLimits(db: Database, kept: number, gone: number) {
  const [mine, theirs] = [ownLimitsOf(db, kept), ownLimitsOf(db, gone)]
  const later = (a: number | null, b: number | null) =>
    a === null && b === null ? null : Math.max(a ?? 0, b ?? 0)
  const paused_until = later(mine.pausedUntil, theirs.pausedUntil)
  const one_in_days = later(mine.oneInDays, theirs.oneInDays)
  if (paused_until === null && one_in_days === null) return
  const since = one(
    db,
    q
      .selectFrom('own_limits')
      .select((eb) => eb.fn.max<number | null>('paused_at').as('at'))
      .where('person_id', 'in', [kept, gone])
      .where('paused_until', '=', paused_until),
  )
  keepLimits(db, kept, { paused_at: since?.at ?? null, paused_until, one_in_days })
}

function keepLimits(
  db: Database,
  person_id: number,
  change: { paused_at?: number | null; paused_until?: number | null; one_in_days?: number | null },
) {
  run(
    db,
    q
      .insertInto('own_limits')
      .values({ person_id, ...change })
      .onConflict((c) => c.column('person_id').doUpdateSet(change)),
  )
}

/**
 * Whether what somebody asked for keeps mail from them now. Of one who wants at most one mailing in some days, a message that
 * is in conversation counts as one.
 */
export const heldBackAt = (
  person: Expression<number>,
  now: Expression<number>,
) => sql<SqlBool>`exists (
  select 1 from own_limits as l where l.person_id = ${person} and (l.paused_until > ${now} or l.one_in_days is not null and (
    (select f.last_sent_at from facts as f where f.person_id = l.person_id) > ${now} - l.one_in_days * ${sql.lit(DAY)}
    or exists (select 1 from recipients as r where r.state = 'claimed' and r.person_id = l.person_id))))`

/** Conditions on `facts`: whether what somebody asked for lets a mailing go to them now. */
export const notPausedAt = (now: number) =>
  sql<SqlBool>`facts.person_id not in (select person_id from own_limits where paused_until > ${now})`
export const underOwnLimitAt = (now: number) =>
  sql<SqlBool>`facts.person_id not in (select l.person_id from own_limits l join facts f on f.person_id = l.person_id
    where f.last_sent_at > ${now} - l.one_in_days * ${sql.lit(DAY)})`
