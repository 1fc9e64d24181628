import { moveSignUp } from '~~/database/sign-ups'

/** Ends a sign-up for good; what came of it stays. */
export default defineEventHandler((event) => {
  if (!moveSignUp(satchel().db, signUpOf(event).id, ['live', 'paused'], 'ended'))
    throw refused('It is not live.')
  return { ok: true }
})
