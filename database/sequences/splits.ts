import { sql, type RawBuilder, type SqlBool } from 'kysely'
import type { Outcome } from '../../core/experiments'
import {
  allTo,
  drawnAt,
  isJudged,
  judge,
  mailingsOfMap,
  mailingsOfStep,
  type JudgedStep,
  type SequenceMap,
  type Step,
} from '../../core/sequences'
import { isCountedSql } from '../../core/counting'
import { DAY, HOUR } from '../../core/time'
import { all, one, q, raw, run, transact, type Database } from '../query'
import { mapOfVersion, type Sequence } from './sequences'
import { judgedSteps, standingOf } from './split-shares'

/** What is drawn by lot is judged so often. */
const JUDGED_EVERY = HOUR

/** Looks at the judged splits and mails of a running sequence, each once an hour; how many have come to other shares. */
export function judgeSplits(db: Database, sequence: Sequence, now: number): number {
  const map = mapOfVersion(db, sequence.id, sequence.version)
  let changed = 0
  for (const [id, step] of judgedSteps(map)) {
    if (step.judged.how === 'hand') continue
    const row = one(
      db,
      q
        .selectFrom('split_shares')
        .select(['since', 'shares', 'looked_at', 'by_name'])
        .where('sequence_id', '=', sequence.id)
        .where('step', '=', id),
    )
    if (!row || (row.looked_at !== null && now - row.looked_at < JUDGED_EVERY)) continue
    // What was decided, by whomever, stays; shares that follow the evidence go on doing so.
    const isOver = row.shares !== null && (row.by_name !== null || step.judged.how === 'self')
    const { shares } = isOver
      ? { shares: null }
      : judge(outcomesOf(db, sequence.id, map, id, step, row.since, now), step.judged.how)
    const next = shares && JSON.stringify(shares)
    const moves = next !== null && next !== row.shares
    run(
      db,
      q
        .updateTable('split_shares')
        .set({ looked_at: now, ...(moves && { shares: next, at: now }) })
        .where('sequence_id', '=', sequence.id)
        .where('step', '=', id),
    )
    if (moves) changed++
  }
  return changed
}

/**
 * Everybody who comes from now on goes by one way of a split, or gets one version of a mail, or (null) falls by lot again.
 * Whether there is such a judged step, as it was shown.
 */
export function decideSplit(
  db: Database,
  sequence: Sequence,
  { step, since }: { step: string; since: number },
  way: number | null,
  by: string,
  now: number,
): boolean {
  return transact(db, () => {
    const map = mapOfVersion(db, sequence.id, sequence.version)
    const at = map.steps[step]
    if (!at || !isJudged(at)) return false
    const many = drawnAt(at).length + 1
    if (way !== null && way >= many) return false
    if (standingOf(db, sequence.id, step, map)?.since !== since) return false
    const shares = way === null ? null : JSON.stringify(allTo(way, many))
    const to = { shares, by_name: way === null ? null : by, at: way === null ? null : now }
    run(
      db,
      q
        .updateTable('split_shares')
        .set(to)
        .where('sequence_id', '=', sequence.id)
        .where('step', '=', step),
    )
    return true
  })
}

/**
 * What came of those who went by each way of a split, or were sent each version of a mail, of whom the days are over by which
 * it is judged: within them. In the order of the ways or versions.
 * @param those Of some rounds alone: see `isOneOf`. Null: of all.
 */
export function outcomesOf(
  db: Database,
  sequenceId: number,
  map: SequenceMap,
  id: string,
  step: JudgedStep & Step,
  since: number,
  now: number,
  those: RawBuilder<SqlBool> | null = null,
): Outcome[] {
  const { by, days } = step.judged
  const window = days * DAY
  const goals = JSON.stringify(
    Object.entries(map.steps).flatMap(([goal, one]) => (one.kind === 'goal' ? [goal] : [])),
  )
  const mailings = JSON.stringify(mailingsOfMap(map))
  const ofMail = mailingsOfStep(step)
  // Who was sent back to it counts once, since they came by it first.
  const firstOnly = Object.values(map.steps).some((one) => one.kind === 'wait' && one.back)
  // In the same shape: who came by what, and when.
  const came = ofMail.length
    ? sql`(select person_id, round, accepted_at as at, opened_at, clicked_at,
        (select key from json_each(${JSON.stringify(ofMail)}) where value = r.mailing_id) as way
      from recipients as r where r.mailing_id in (${sql.join(ofMail)}) and ${isCountedSql('delivered')})`
    : sql`(select person_id, round, ${firstOnly ? sql`min(at) as at` : sql`at`}, way from sequence_trail
      where sequence_id = ${sequenceId} and step = ${id} ${firstOnly ? sql`group by person_id, round` : sql``})`
  const isIn = (at: string) => sql`${sql.ref(at)} >= t.at and ${sql.ref(at)} < t.at + ${window}`
  // A version is judged by what was done with it, a way by what was done with any mail.
  const mailed = (at: 'opened_at' | 'clicked_at') =>
    ofMail.length
      ? sql`coalesce(${isIn(`t.${at}`)}, 0)`
      : sql`exists (select 1 from recipients as r where r.person_id = t.person_id and r.round = t.round
      and r.mailing_id in (select value from json_each(${mailings})) and ${isIn(`r.${at}`)})`
  const value = {
    goal: sql`exists (select 1 from sequence_trail as g where g.sequence_id = ${sequenceId} and g.person_id = t.person_id
      and g.round = t.round and g.way = 1 and g.step in (select value from json_each(${goals})) and ${isIn('g.at')})`,
    opened: mailed('opened_at'),
    clicked: mailed('clicked_at'),
    money: sql`coalesce((select sum(o.money) from orders as o where o.person_id = t.person_id and ${isIn('o.at')}), 0)`,
  }[by]
  const isLookedAt = those
    ? sql`exists (select 1 from enrolments as n where n.sequence_id = ${sequenceId} and n.person_id = t.person_id
        and n.round = t.round and ${those})`
    : sql`true`
  const rows = all(
    db,
    raw(sql<{ way: number; of: number; sum: number; squares: number }>`
      select way, count(*) as of, sum(value) as sum, sum(value * value) as squares from (
        select t.way, ${value} as value from ${came} as t where t.at >= ${since} and t.at <= ${now - window} and ${isLookedAt})
      group by way`),
  )
  return Array.from({ length: drawnAt(step).length + 1 }, (_, way) => {
    const { of, sum, squares } = rows.find((row) => row.way === way) ?? {
      of: 0,
      sum: 0,
      squares: 0,
    }
    return by === 'money' ? { kind: 'mean', sum, squares, of } : { kind: 'rate', hits: sum, of }
  })
}
