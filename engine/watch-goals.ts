import { HOUR } from '../core/time'
import { goalsToWatch, noteGoalHits } from '../database/mailings'
import type { Engine, Work } from './engine'

/** Somebody is seen to have come into a goal's segment, or left it, at most so much later. */
const EVERY = HOUR / 4
const lookedAt = new WeakMap<Engine['db'], number>()

/** Looks every quarter of an hour who has reached a goal that is a segment. */
export const watchGoals: Work = ({ db, clock, log }) => {
  const now = clock()
  if (now - (lookedAt.get(db) ?? -Infinity) < EVERY) return false
  lookedAt.set(db, now)
  for (const mailing of goalsToWatch(db, now)) {
    const hits = noteGoalHits(db, mailing, now)
    if (hits) log.info({ mailing: mailing.id, hits }, 'goal reached')
  }
  return false
}
