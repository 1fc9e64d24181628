import { emptyLetter } from '~~/core/letters'
import { stampById } from '~~/database/letters'

/** A stamp as it looks in a letter of this account. */
export default defineEventHandler(async (event) => {
  const stamp = stampById(satchel().db, idOf(event))
  if (!stamp) throw notFound('There is no such stamp.')
  const letter = emptyLetter()
  const rows = [{ id: 'stamp', ...stamp.content }]
  return letterSample({ ...letter, document: { ...letter.document, rows } })
})
