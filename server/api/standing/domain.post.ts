import { domainCheck } from '~~/database/account'

/** Has the name servers asked anew. */
export default defineEventHandler(() => {
  const { db, clock } = satchel()
  domainCheck(db, clock(), true)
  return { ok: true }
})
