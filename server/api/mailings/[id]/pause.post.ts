import { moveMailing } from '~~/database/mailings'

/** Stops claiming recipients of a mailing that is going out; conversations under way are finished. */
export default defineEventHandler((event) => {
  const mailing = dispatchedMailingOf(event)
  if (
    !moveMailing(satchel().db, mailing.id, ['sending'], 'held', {
      held_by: 'hand',
      held_note: 'Paused.',
    })
  )
    throw refused('This mailing is not going out just now.')
  return { ok: true }
})
