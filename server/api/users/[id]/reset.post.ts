import { makeReset } from '~~/database/account'

/** A link with which somebody sets their password anew, within an hour. */
export default defineEventHandler((event) => {
  const user = userOf(event)
  const { db, hostClock, url } = satchel()
  return { link: `${url}/new-password#${makeReset(db, user.id, hostClock())}` }
})
