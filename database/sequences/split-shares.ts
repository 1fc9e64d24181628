import { isJudged, readShares, waysOf, type SequenceMap } from '../../core/sequences'
import { all, one, q, run, type Database } from '../query'

/** What a split has come to: shares by way, by whom and when; `shares` null: it is as the map says. */
export interface SplitStanding {
  since: number
  shares: number[] | null
  by: string | null
  at: number | null
}

/** The shares of splits by which those go who come by now; asked of many, each is read once. */
export function sharesNow(db: Database) {
  const known = new Map<string, readonly number[] | null>()
  return (sequenceId: number, step: string, map: SequenceMap) => {
    const key = `${sequenceId} ${step}`
    let shares = known.get(key)
    if (shares === undefined)
      known.set(key, (shares = standingOf(db, sequenceId, step, map)?.shares ?? null))
    return shares
  }
}

/** What a split of a map has come to; null where its ways are not judged. */
export function standingOf(
  db: Database,
  sequenceId: number,
  step: string,
  map: SequenceMap,
): SplitStanding | null {
  const split = map.steps[step]
  if (split?.kind !== 'split') return null
  const row = one(
    db,
    q
      .selectFrom('split_shares')
      .select(['since', 'shares', 'by_name as by', 'at'])
      .where('sequence_id', '=', sequenceId)
      .where('step', '=', step),
  )
  return row ? { ...row, shares: readShares(row.shares, waysOf(split).length) } : null
}

/** A new version runs: splits that are as they were go on being judged, the others are judged from now on. */
export function beginJudging(
  db: Database,
  sequenceId: number,
  map: SequenceMap,
  before: SequenceMap | null,
  now: number,
) {
  const same = (id: string) =>
    JSON.stringify(shapeOf(map, id)) === JSON.stringify(before && shapeOf(before, id))
  const splits = judgedSplits(map).map(([id]) => id)
  for (const { step } of all(
    db,
    q.selectFrom('split_shares').select('step').where('sequence_id', '=', sequenceId),
  ))
    if (!splits.includes(step) || !same(step))
      run(
        db,
        q.deleteFrom('split_shares').where('sequence_id', '=', sequenceId).where('step', '=', step),
      )
  for (const step of splits)
    run(
      db,
      q
        .insertInto('split_shares')
        .values({ sequence_id: sequenceId, step, since: now })
        .onConflict((c) => c.doNothing()),
    )
}

/** What makes a split another one: its shares and how it is judged, and not where its ways lead. */
function shapeOf(map: SequenceMap, id: string) {
  const step = map.steps[id]
  return step?.kind === 'split' ? [step.ways.map(({ share }) => share), step.judged ?? null] : null
}

export const judgedSplits = (map: SequenceMap) =>
  Object.entries(map.steps).flatMap(([id, step]) => (isJudged(step) ? [[id, step] as const] : []))
