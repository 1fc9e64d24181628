import { domainCheck, senderDomain } from '~~/database/account'

/** What name servers say of the sender's domain; null until they were asked. */
export default defineEventHandler(() => {
  const { db, clock } = satchel()
  return { domain: senderDomain(db), known: domainCheck(db, clock()) }
})
