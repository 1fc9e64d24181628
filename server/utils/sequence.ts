import type { H3Event } from 'h3'
import { sequenceById, type Sequence } from '~~/database/sequences'

/** The sequence a path names. */
export function sequenceOf(event: H3Event): Sequence {
  const sequence = sequenceById(satchel().db, idOf(event))
  if (!sequence) throw notFound('This sequence is not on file.')
  return sequence
}
