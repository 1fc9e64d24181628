import { changeRole } from '~~/database/account'
import { roleInput } from '~~/shared/account-inputs'

/** Changes somebody's role. */
export default defineEventHandler(async (event) => {
  const { role } = await readInput(event, roleInput)
  const user = userOf(event)
  if (!changeRole(satchel().db, user.id, role))
    throw refused('Somebody has to be an owner. Make somebody else one first.')
  return { ok: true }
})
