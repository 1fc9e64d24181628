import { segmentById } from '~~/database/segments'
import { enrolPerson, letSegmentIn } from '~~/database/sequences'
import { letInInput } from '~~/shared/mailing-inputs'

/** Lets somebody in by hand, or a whole segment: how many come in, or are on their way. */
export default defineEventHandler(async (event) => {
  const { personId, segmentId } = await readInput(event, letInInput)
  const { db, clock } = satchel()
  const sequence = sequenceOf(event)
  if (sequence.state !== 'running')
    throw refused('It does not run just now, so nobody can be let in.')
  if (segmentId !== undefined) {
    const segment = segmentById(db, segmentId)
    if (!segment) throw notFound('This segment is gone.')
    return { people: letSegmentIn(db, sequence, segment.rule, clock()) }
  }
  if (!enrolPerson(db, sequence.id, personId!, clock()))
    throw refused(
      'They did not come in: they are not subscribed to its list, are suppressed, do not fit its rule, or were inside and may not come again.',
    )
  return { people: 1 }
})
