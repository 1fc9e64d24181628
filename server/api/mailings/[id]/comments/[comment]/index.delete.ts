import { deleteComment } from '~~/database/letters'

/** Takes back what one has said oneself. */
export default defineEventHandler(async (event) => {
  const { letter_id } = mailingOf(event)
  const by = author(event)
  if (!deleteComment(satchel().db, letter_id, idOf(event, 'comment'), by))
    throw refused('Only who has said it can take it back.')
  return { ok: true }
})
