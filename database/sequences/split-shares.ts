import {
  drawnAt,
  isJudged,
  mailingsOfStep,
  readShares,
  type SequenceMap,
} from '../../core/sequences'
import { all, one, q, run, type Database } from '../query'

/** What is drawn by lot at a step has come to: its shares, by whom and when; `shares` null: it is as the map says. */
export interface SplitStanding {
  since: number
  shares: number[] | null
  by: string | null
  at: number | null
}

/** The shares by which those fall who come by a step now; asked of many, each is read once. */
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

/** What a step of a map has come to; null where nothing is judged at it. */
export function standingOf(
  db: Database,
  sequenceId: number,
  step: string,
  map: SequenceMap,
): SplitStanding | null {
  const at = map.steps[step]
  if (!at || !isJudged(at)) return null
  const row = one(
    db,
    q
      .selectFrom('split_shares')
      .select(['since', 'shares', 'by_name as by', 'at'])
      .where('sequence_id', '=', sequenceId)
      .where('step', '=', step),
  )
  return row ? { ...row, shares: readShares(row.shares, drawnAt(at).length + 1) } : null
}

/** A new version runs: what is drawn as it was goes on being judged, the rest is judged from now on. */
export function beginJudging(
  db: Database,
  sequenceId: number,
  map: SequenceMap,
  before: SequenceMap | null,
  now: number,
) {
  const same = (id: string) =>
    JSON.stringify(shapeOf(map, id)) === JSON.stringify(before && shapeOf(before, id))
  const judged = judgedSteps(map).map(([id]) => id)
  for (const { step } of all(
    db,
    q.selectFrom('split_shares').select('step').where('sequence_id', '=', sequenceId),
  ))
    if (!judged.includes(step) || !same(step))
      run(
        db,
        q.deleteFrom('split_shares').where('sequence_id', '=', sequenceId).where('step', '=', step),
      )
  for (const step of judged)
    run(
      db,
      q
        .insertInto('split_shares')
        .values({ sequence_id: sequenceId, step, since: now })
        .onConflict((c) => c.doNothing()),
    )
}

/** What makes it another one: the shares, which mails, and how it is judged, and not where ways lead. */
function shapeOf(map: SequenceMap, id: string) {
  const step = map.steps[id]
  if (!step || !isJudged(step)) return null
  return [drawnAt(step).map(({ share }) => share), step.judged, ...mailingsOfStep(step)]
}

export const judgedSteps = (map: SequenceMap) =>
  Object.entries(map.steps).flatMap(([id, step]) => (isJudged(step) ? [[id, step] as const] : []))
