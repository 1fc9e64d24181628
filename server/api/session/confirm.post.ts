import { confirmSession } from '~~/database/account'
import { confirmInput } from '~~/shared/account-inputs'

/** The password again, before something sensitive. */
export default defineEventHandler(async (event) => {
  const { password } = await readInput(event, confirmInput)
  const { db, hostClock } = satchel()
  const { user, session } = me(event)
  await takePassword(event, user, password)
  confirmSession(db, session.id, hostClock())
  return { ok: true }
})
