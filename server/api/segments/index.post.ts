import { addSegment, isNameTaken } from '~~/database/segments'
import { segmentInput } from '~~/shared/segment-inputs'

/** Saves a new segment. */
export default defineEventHandler(async (event) => {
  const { name, rule } = await readInput(event, segmentInput)
  const { db, clock } = satchel()
  if (isNameTaken(db, name)) throw nameTaken()
  return { id: addSegment(db, name, ruleToSave(rule, null), clock()) }
})
