import { mergePeople } from '~~/database/people'
import { mergeInput } from '~~/shared/people-inputs'

/** Makes two people one; the one in the path is kept. */
export default defineEventHandler(async (event) => {
  const id = idOf(event)
  const { gone } = await readInput(event, mergeInput)
  const { db, clock } = satchel()
  if (!mergePeople(db, id, gone, clock())) throw notFound('One of the two is not on file.')
  return { ok: true }
})
