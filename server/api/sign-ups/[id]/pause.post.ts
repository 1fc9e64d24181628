import { moveSignUp } from '~~/database/sign-ups'

/** Pauses a live sign-up: where it stands, nobody can sign up until it goes on. */
export default defineEventHandler((event) => {
  if (!moveSignUp(satchel().db, signUpOf(event).id, ['live'], 'paused'))
    throw refused('It is not live.')
  return { ok: true }
})
