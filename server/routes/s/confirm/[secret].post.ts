import { confirmSending } from '~~/cases/sign-ups'

/** Carries out what somebody agreed to, now that they pressed the button behind the mailed link. */
export default defineEventHandler((event) => {
  const found = confirmedSending(event)
  if (!found) return linkOver(event)
  const { db, clock } = satchel()
  const came = confirmSending(db, found.sending, fromWhere(event), clock())
  return sayConfirmed(event, found, came)
})
