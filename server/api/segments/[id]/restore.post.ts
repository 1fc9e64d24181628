import { restoreSegment } from '~~/database/segments'

/** Brings back a segment that was deleted a moment ago, as it was. */
export default defineEventHandler((event) => {
  if (!restoreSegment(satchel().db, idOf(event)))
    throw notFound('This segment can’t be brought back any more.')
  return { ok: true }
})
