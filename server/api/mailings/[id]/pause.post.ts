import { holdMailing } from '~~/database/mailings'

/** Stops claiming recipients of a mailing that is going out; conversations under way are finished. */
export default defineEventHandler((event) => {
  const { id } = dispatchedMailingOf(event)
  const { db, clock } = satchel()
  if (!holdMailing(db, id, { held_by: 'hand', held_note: 'Paused.' }, clock()))
    throw refused('This mailing is not going out just now.')
  return { ok: true }
})
