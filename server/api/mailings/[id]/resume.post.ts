import { moveMailing } from '~~/database/mailings'

export default defineEventHandler((event) => {
  const mailing = mailingOf(event)
  if (
    mailing.started_at === null ||
    !moveMailing(satchel().db, mailing.id, ['held'], 'sending', { held_by: null, held_note: null })
  )
    throw refused('This mailing is not paused.')
  return { ok: true }
})
