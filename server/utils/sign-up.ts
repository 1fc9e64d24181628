import type { H3Event } from 'h3'
import { signUpById, type SignUp } from '~~/database/sign-ups'

/** The sign-up a path names. */
export function signUpOf(event: H3Event): SignUp {
  const signUp = signUpById(satchel().db, idOf(event))
  if (!signUp) throw notFound('This sign-up is not on file.')
  return signUp
}
