import { copyLabels } from '~~/database/labels'
import { chooseLetterhead, letterheadIdOf, letterOf } from '~~/database/letters'
import { createMailing, mailingById, updateMailing } from '~~/database/mailings'

/** A new draft with the same letter and audience. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  const mailing = mailingOf(event)
  const letter = letterOf(db, mailing.letter_id)
  const id = createMailing(
    db,
    { name: `${mailing.name}, again`.slice(0, 120), listId: mailing.list_id, letter },
    clock(),
  )
  const { rule, left_out, past_cap } = mailing
  updateMailing(db, id, { rule, left_out, past_cap })
  chooseLetterhead(db, mailingById(db, id)!.letter_id, letterheadIdOf(db, mailing.letter_id))
  copyLabels(db, 'mailing', mailing.id, id)
  return { id }
})
