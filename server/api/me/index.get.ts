import { CONFIRMED_FOR } from '~~/core/team'
import { sessionsOf, recoveryCodesLeft, secondFactorOf } from '~~/database/account'

/** One's own account: where one is signed in, and whether there is a second factor. */
export default defineEventHandler((event) => {
  const { user, session } = me(event)
  const { db, hostClock } = satchel()
  return {
    ...user,
    confirmed: hostClock() - session.confirmed_at < CONFIRMED_FOR,
    secondFactor: secondFactorOf(db, user.id) !== null,
    recoveryCodesLeft: recoveryCodesLeft(db, user.id),
    sessions: sessionsOf(db, user.id, hostClock()).map((one) => ({
      id: one.id,
      device: one.device,
      address: one.address,
      began: one.began_at,
      used: one.used_at,
      isThis: one.id === session.id,
    })),
  }
})
