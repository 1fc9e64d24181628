import { proofMailing } from '~~/database/proof'

export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  return { marks: proofMailing(db, mailingOf(event), clock()) }
})
