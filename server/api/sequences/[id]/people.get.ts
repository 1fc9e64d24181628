import { alreadyThere } from '~~/core/sequences'
import { segmentById } from '~~/database/segments'
import { couldComeIn } from '~~/database/sequences'

/**
 * How many of a segment, or of those who fit a start already, could be let in by hand, and how many of them were never inside.
 */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  const sequence = sequenceOf(event)
  const { segment, already } = getQuery(event)
  const rule = already
    ? alreadyThere(sequence.map.start)
    : (segmentById(db, Number(segment))?.rule ?? null)
  if (!rule)
    throw notFound(already ? 'Nobody can fit this start already.' : 'This segment is gone.')
  return couldComeIn(db, sequence, rule, clock())
})
