import { deleteMailing } from '~~/database/mailings'

export default defineEventHandler((event) => {
  dispatchedMailingOf(event)
  const mailing = unsentMailingOf(event)
  deleteMailing(satchel().db, mailing.id)
  return { ok: true }
})
