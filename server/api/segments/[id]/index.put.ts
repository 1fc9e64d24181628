import { changeSegment, isNameTaken, segmentById } from '~~/database/segments'
import { segmentChangeInput } from '~~/shared/segment-inputs'

/** Changes a segment over the version its editor saw; where somebody was faster, it says so and changes nothing. */
export default defineEventHandler(async (event) => {
  const id = idOf(event)
  const { name, rule, version } = await readInput(event, segmentChangeInput)
  const { db, clock } = satchel()
  const before = segmentById(db, id)
  if (!before) throw notFound('This segment is not on file.')
  if (before.frozenAt !== null)
    throw refused('A frozen segment stays as it was. Copy it to change it.')
  if (isNameTaken(db, name, id)) throw nameTaken()
  const next = changeSegment(db, id, { name, rule: ruleToSave(rule, id) }, version, clock())
  if (next === null)
    throw overtaken(
      'Somebody else has changed this segment in the meantime. Yours is kept here; look at theirs first.',
    )
  return { version: next }
})
