import { hashPassword } from '~~/cases/team'
import { setPassword, userOfReset } from '~~/database/account'
import { resetInput } from '~~/shared/account-inputs'

/** Sets a password anew by a link that an owner made; it works once, for an hour, and ends all sessions. */
export default defineEventHandler(async (event) => {
  const { key, password } = await readInput(event, resetInput)
  const { db, hostClock } = satchel()
  const hash = await hashPassword(password)
  const user = userOfReset(db, key, hostClock())
  if (!user)
    throw createError({
      statusCode: 404,
      message:
        'This link works no more: it was used, or is older than an hour. Ask an owner for another.',
    })
  setPassword(db, user.id, hash)
  noteWhat(event, user, 'set a new password by a link', '/session')
  return { address: user.address }
})
