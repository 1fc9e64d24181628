import { readWhich } from '~~/core/sequences'
import { versionsOf } from '~~/database/sequences'

/**
 * What came of a sequence: its goal and money beside those held out, its splits, who left and why, and when people read; of
 * all rounds, or of some, then with the figures of the map.
 */
export default defineEventHandler(async (event) => {
  const { db, clock } = satchel()
  const { id } = sequenceOf(event)
  const query = getQuery(event)
  const days = Number(query.days)
  const which = readWhich(query)
  if (which.version !== null && !versionsOf(db, id).some((one) => one.version === which.version))
    throw notFound('There is no such version of this sequence.')
  const asked = { sequenceId: id, days: [7, 14, 30, 90].includes(days) ? days : 14, which }
  const from = `results of sequence ${id} for ${me(event).user.id}`
  return askLong('sequenceResults', { ...asked, now: clock() }, from)
})
