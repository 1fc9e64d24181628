import { setSignUpDeleted } from '~~/database/sign-ups'

/** Brings a deleted sign-up back, as it was. */
export default defineEventHandler((event) => {
  if (!setSignUpDeleted(satchel().db, idOf(event), null))
    throw notFound('This sign-up is not on file.')
  return { ok: true }
})
