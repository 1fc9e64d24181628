import type { H3Event } from 'h3'
import { isPassword } from '~~/cases/team'
import { passwordHashOf, type User } from '~~/database/account'

/** The password of somebody who is signed in, as they give it again; refuses another, and too many tries. */
export async function takePassword(
  event: H3Event,
  user: User,
  password: string,
  field = 'password',
) {
  const { db, hostClock } = satchel()
  const who = { address: user.address, from: fromOf(event).address, device: `user ${user.id}` }
  refuseTooMany(event, waitToSignIn(who, hostClock()))
  countTry(who, hostClock())
  if (!(await isPassword(passwordHashOf(db, user.id), password))) {
    const message = 'This is not your password.'
    throw createError({ statusCode: 422, message, data: { fields: { [field]: message } } })
  }
  tryWasRight(who)
}
