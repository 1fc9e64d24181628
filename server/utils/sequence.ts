import type { H3Event } from 'h3'
import { readWhich, type Which } from '~~/core/sequences'
import { sequenceById, versionsOf, whoProblem, type Sequence } from '~~/database/sequences'

/** The sequence a path names. */
export function sequenceOf(event: H3Event): Sequence {
  const sequence = sequenceById(satchel().db, idOf(event))
  if (!sequence) throw notFound('This sequence is not on file.')
  return sequence
}

/** Which rounds of a sequence are asked for; refused where there is no such version, or who they are can't be read. */
export function roundsOf(event: H3Event, { id }: Sequence): Which {
  const { db } = satchel()
  const which = readWhich(getQuery(event))
  if (which.version !== null && !versionsOf(db, id).some((one) => one.version === which.version))
    throw notFound('There is no such version of this sequence.')
  const problem = whoProblem(db, which)
  if (problem) throw refused(`Who: ${problem}`)
  return which
}
