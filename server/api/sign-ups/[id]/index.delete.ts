import { setSignUpDeleted } from '~~/database/sign-ups'

/** Deletes a sign-up; what came in by it stays. It can be restored. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  setSignUpDeleted(db, signUpOf(event).id, clock())
  return { ok: true }
})
