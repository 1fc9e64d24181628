import { handOverAgain } from '~~/database/sequences'
import { callAgainInput } from '~~/shared/sign-up-inputs'

/** Hands somebody over once more, under the same key. */
export default defineEventHandler(async (event) => {
  const { call } = await readInput(event, callAgainInput)
  const { db, clock } = satchel()
  if (!handOverAgain(db, sequenceOf(event).id, call, clock()))
    throw notFound('This is not on file any more, or is on its way just now.')
  return { ok: true }
})
