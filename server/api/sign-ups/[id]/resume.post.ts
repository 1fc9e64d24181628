import { moveSignUp } from '~~/database/sign-ups'

/** Lets a paused sign-up go on with the version that was published last. */
export default defineEventHandler((event) => {
  if (!moveSignUp(satchel().db, signUpOf(event).id, ['paused'], 'live'))
    throw refused('It is not paused.')
  return { ok: true }
})
