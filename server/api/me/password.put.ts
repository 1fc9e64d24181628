import { hashPassword } from '~~/cases/team'
import { setPassword } from '~~/database/account'
import { passwordInput } from '~~/shared/account-inputs'

/** A new password, by the old one; all other sessions are over. */
export default defineEventHandler(async (event) => {
  const { old, password } = await readInput(event, passwordInput)
  const { user, session } = me(event)
  await takePassword(event, user, old, 'old')
  setPassword(satchel().db, user.id, await hashPassword(password), session.id)
  return { ok: true }
})
