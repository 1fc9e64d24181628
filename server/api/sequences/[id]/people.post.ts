import type { Rule } from '~~/core/segments'
import { importById } from '~~/database/imports'
import { segmentById } from '~~/database/segments'
import { enrolPerson, letSegmentIn } from '~~/database/sequences'
import { letInInput } from '~~/shared/mailing-inputs'

/** Lets somebody in by hand, a whole segment, or who an import brought in: how many come in, or are on their way. */
export default defineEventHandler(async (event) => {
  const { personId, segmentId, importId } = await readInput(event, letInInput)
  const { db, clock } = satchel()
  const sequence = sequenceOf(event)
  if (sequence.state !== 'running')
    throw refused('It does not run just now, so nobody can be let in.')
  if (segmentId !== undefined) {
    const segment = segmentById(db, segmentId)
    if (!segment) throw notFound('This segment is gone.')
    return { people: letSegmentIn(db, sequence, segment.rule, clock()) }
  }
  if (importId !== undefined) {
    if (!importById(db, importId)) throw notFound('This import is gone.')
    const rule: Rule = { kind: 'source', from: 'import', importId }
    return { people: letSegmentIn(db, sequence, rule, clock()) }
  }
  if (!enrolPerson(db, sequence.id, personId!, clock()))
    throw refused(
      'They did not come in: they are not subscribed to its list, are suppressed, do not fit its rule, or were inside and may not come again.',
    )
  return { people: 1 }
})
