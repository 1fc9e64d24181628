import { removeTrialMailbox } from '~~/database/mailings'

/** Brings a mailbox back that was taken away. */
export default defineEventHandler((event) => {
  if (!removeTrialMailbox(satchel().db, idOf(event), null))
    throw notFound('This mailbox is not on file.')
  return { ok: true }
})
