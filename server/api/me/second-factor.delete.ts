import { removeSecondFactor } from '~~/database/account'

/** No second factor any more. */
export default defineEventHandler((event) => {
  removeSecondFactor(satchel().db, me(event).user.id)
  return { ok: true }
})
