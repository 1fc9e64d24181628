import { takeSecondFactor } from '~~/cases/team'
import { secondFactorInput } from '~~/shared/account-inputs'

/** Sets a second factor by a code of it; answers its recovery codes, once. */
export default defineEventHandler(async (event) => {
  const given = await readInput(event, secondFactorInput)
  const { db, hostClock } = satchel()
  const codes = takeSecondFactor(db, me(event).user.id, given, hostClock())
  if (!codes) {
    const message = 'This code does not hold. Look whether the clock of your phone is right.'
    throw createError({ statusCode: 422, message, data: { fields: { code: message } } })
  }
  return { recoveryCodes: codes }
})
