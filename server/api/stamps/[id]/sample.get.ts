import { frameOf, letterSample } from '~~/cases/letters'
import { emptyLetter } from '~~/core/letters'
import { stampById } from '~~/database/letters'

/** A stamp as it looks in a letter of this account. */
export default defineEventHandler(async (event) => {
  const { db, url } = satchel()
  const stamp = stampById(db, idOf(event))
  if (!stamp) throw notFound('There is no such stamp.')
  const letter = emptyLetter()
  const rows = [{ id: 'stamp', ...stamp.content }]
  const whole = { ...letter, document: { ...letter.document, rows } }
  return madeOrRefused(letterSample(whole, frameOf(db, { list_id: null }, url)))
})
