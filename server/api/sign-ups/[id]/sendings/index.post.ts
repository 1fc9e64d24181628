import type { SendingEvent } from '~~/core/sign-ups'
import { moveSending, sendingById } from '~~/database/sign-ups'
import { sendingsInput } from '~~/shared/sign-up-inputs'

/** Lets what is kept for a look through, so that it gets its confirming letter; or drops it. How many. */
export default defineEventHandler(async (event) => {
  const { what, ids } = await readInput(event, sendingsInput)
  const { db, clock } = satchel()
  const signUp = signUpOf(event)
  const moved = ids.filter((id) => {
    const sending = sendingById(db, id)
    if (sending?.sign_up_id !== signUp.id || sending.state !== 'for-a-look') return false
    return moveSending(db, sending, what as SendingEvent, clock())
  })
  return { moved: moved.length }
})
