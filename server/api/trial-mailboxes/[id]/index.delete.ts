import { removeTrialMailbox } from '~~/database/mailings'

export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  if (!removeTrialMailbox(db, idOf(event), clock())) throw notFound('This mailbox is not on file.')
  return { ok: true }
})
