import { setImmediate as breathe } from 'node:timers/promises'
import { followSegment, unfollowedSegments, segmentById } from '../database/segments'
import { arrivedBySegment } from '../database/sequences'
import type { Work } from './engine'

/** Notes once a day, segment by segment, who is in it and who came and went. */
export const followSegments: Work = async ({ db, clock }) => {
  const now = clock()
  const [id] = unfollowedSegments(db, now)
  const segment = id === undefined ? undefined : segmentById(db, id)
  if (!segment) return false
  const follow = followSegment(db, segment, now, (moved) =>
    arrivedBySegment(db, segment.id, moved, now),
  )
  for (const _ of follow) await breathe()
  return true
}
