import { callAgain } from '~~/database/sign-ups'
import { callAgainInput } from '~~/shared/sign-up-inputs'

/** Sends a call to the webhook once more. */
export default defineEventHandler(async (event) => {
  const { call } = await readInput(event, callAgainInput)
  const { db, clock } = satchel()
  if (!callAgain(db, signUpOf(event).id, call, clock()))
    throw notFound('This call is not on file any more.')
  return { ok: true }
})
