import { freezePeople, isNameTaken } from '~~/database/segments'
import { sqlSegmentInput } from '~~/shared/segment-inputs'

/** Saves the people of a query as a segment that stays as it is. */
export default defineEventHandler(async (event) => {
  const { name, query } = await readInput(event, sqlSegmentInput)
  const { db, clock } = satchel()
  if (isNameTaken(db, name)) throw nameTaken()
  const answer = await askLong('sqlPeople', { query })
  if ('fault' in answer) throw fieldFault('query', answer.fault)
  return freezePeople(db, name, query, answer.ids, clock())
})
