import { sql } from 'kysely'
import type { Outcome } from '../../core/experiments'
import {
  allTo,
  judge,
  mailingsOfMap,
  waysOf,
  type SequenceMap,
  type SplitStep,
} from '../../core/sequences'
import { DAY, HOUR } from '../../core/time'
import { all, one, q, raw, run, transact, type Database } from '../query'
import { mapOfVersion, type Sequence } from './sequences'
import { judgedSplits, standingOf } from './split-shares'

/** Ways are judged so often. */
const JUDGED_EVERY = HOUR

/** Looks at the judged splits of a running sequence, each once an hour; how many have come to other shares. */
export function judgeSplits(db: Database, sequence: Sequence, now: number): number {
  const map = mapOfVersion(db, sequence.id, sequence.version)
  let changed = 0
  for (const [id, step] of judgedSplits(map)) {
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

/** Sends everybody who comes from now on by one way of a split, or (null) by its lot again. Whether there is such a judged split, as it was shown. */
export function decideSplit(
  db: Database,
  sequence: Sequence,
  { step, since }: { step: string; since: number },
  way: number | null,
  by: string,
  now: number,
): boolean {
  return transact(db, () => {
    const split = mapOfVersion(db, sequence.id, sequence.version).steps[step]
    if (split?.kind !== 'split' || (way !== null && way >= waysOf(split).length)) return false
    const standing = standingOf(
      db,
      sequence.id,
      step,
      mapOfVersion(db, sequence.id, sequence.version),
    )
    if (standing?.since !== since) return false
    const shares = way === null ? null : JSON.stringify(allTo(way, waysOf(split).length))
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
 * What came of those who went by each way of a split, of whom the days are over by which it is judged: within them.
 * In the order of the ways.
 */
export function outcomesOf(
  db: Database,
  sequenceId: number,
  map: SequenceMap,
  id: string,
  step: JudgedSplit,
  since: number,
  now: number,
): Outcome[] {
  const { by, days } = step.judged
  const window = days * DAY
  const goals = JSON.stringify(
    Object.entries(map.steps).flatMap(([goal, one]) => (one.kind === 'goal' ? [goal] : [])),
  )
  const mailings = JSON.stringify(mailingsOfMap(map))
  const isIn = (at: string) => sql`${sql.ref(at)} >= t.at and ${sql.ref(at)} < t.at + ${window}`
  const mailed = (at: 'opened_at' | 'clicked_at') =>
    sql`exists (select 1 from recipients as r where r.person_id = t.person_id and r.round = t.round
      and r.mailing_id in (select value from json_each(${mailings})) and ${isIn(`r.${at}`)})`
  const value = {
    goal: sql`exists (select 1 from sequence_trail as g where g.sequence_id = t.sequence_id and g.person_id = t.person_id
      and g.round = t.round and g.way = 1 and g.step in (select value from json_each(${goals})) and ${isIn('g.at')})`,
    opened: mailed('opened_at'),
    clicked: mailed('clicked_at'),
    money: sql`coalesce((select sum(o.money) from orders as o where o.person_id = t.person_id and ${isIn('o.at')}), 0)`,
  }[by]
  const rows = all(
    db,
    raw(sql<{ way: number; of: number; sum: number; squares: number }>`
      select way, count(*) as of, sum(value) as sum, sum(value * value) as squares from (
        select t.way, ${value} as value from sequence_trail as t
        where t.sequence_id = ${sequenceId} and t.step = ${id} and t.at >= ${since} and t.at <= ${now - window})
      group by way`),
  )
  return waysOf(step).map((_, way) => {
    const { of, sum, squares } = rows.find((row) => row.way === way) ?? {
      of: 0,
      sum: 0,
      squares: 0,
    }
    return by === 'money' ? { kind: 'mean', sum, squares, of } : { kind: 'rate', hits: sum, of }
  })
}

type JudgedSplit = SplitStep & Required<Pick<SplitStep, 'judged'>>
