import { setImmediate as breathe } from 'node:timers/promises'
import { followSegment, unfollowedSegments, segmentById } from '../database/segments'
import type { Work } from './engine'

/** Notes once a day, segment by segment, who is in it and who came and went. */
export const followSegments: Work = async ({ db, clock }) => {
  const now = clock()
  const [id] = unfollowedSegments(db, now)
  const segment = id === undefined ? undefined : segmentById(db, id)
  if (!segment) return false
  for (const _ of followSegment(db, segment, now)) await breathe()
  return true
}
