import { segmentById } from '~~/database/segments'
import { couldComeIn } from '~~/database/sequences'

/** How many of a segment could be let in by hand, and how many of them were never inside. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  const segment = segmentById(db, Number(getQuery(event).segment))
  if (!segment) throw notFound('This segment is gone.')
  return couldComeIn(db, sequenceOf(event), segment.rule, clock())
})
