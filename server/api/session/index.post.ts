import { isPassword, takeSecondCode } from '~~/cases/team'
import { checkAddress } from '~~/core/people'
import { secondFactorOf, userByAddress } from '~~/database/account'
import { signInInput } from '~~/shared/account-inputs'

/** Signs in by address and password, and the code of a second factor where there is one. */
export default defineEventHandler(async (event) => {
  const { address, password, code } = await readInput(event, signInInput)
  const { db, hostClock } = satchel()
  const checked = checkAddress(address)
  const normal = checked.ok ? checked.normal : address
  const user = userByAddress(db, normal)
  const who = {
    address: normal,
    from: fromOf(event).address,
    device: deviceCookieOf(event, user?.id),
  }
  refuseTooMany(event, waitToSignIn(who, hostClock()))
  countTry(who, hostClock())
  if (!(await isPassword(user?.password_hash, password)) || !user) {
    if (user) noteWhat(event, user, 'failed to sign in', '/session', 60_000)
    throw createError({
      statusCode: 401,
      message: 'This address and password do not belong together.',
    })
  }
  if (secondFactorOf(db, user.id)) {
    if (!code) {
      tryWasRight(who)
      throw createError({
        statusCode: 401,
        message: 'Give the code of your second factor, too.',
        data: { secondFactor: true },
      })
    }
    if (!takeSecondCode(db, user.id, code, hostClock())) {
      noteWhat(event, user, 'failed to sign in', '/session', 60_000)
      throw createError({
        statusCode: 401,
        message: 'This code does not hold, or was used already.',
        data: {
          secondFactor: true,
          fields: { code: 'This code does not hold, or was used already.' },
        },
      })
    }
  }
  tryWasRight(who)
  signInHere(event, user.id)
  noteWhat(event, user, 'signed in', '/session')
  return { ok: true }
})
