import { moveMailing } from '~~/database/mailings'

/** Takes a scheduled or held mailing back to a draft. */
export default defineEventHandler((event) => {
  dispatchedMailingOf(event)
  const mailing = unsentMailingOf(event)
  if (
    !moveMailing(satchel().db, mailing.id, ['scheduled', 'held'], 'draft', {
      scheduled_at: null,
      wish: null,
      callback_until: null,
      held_by: null,
      held_note: null,
    })
  )
    throw refused('This mailing is not scheduled.')
  return { ok: true }
})
