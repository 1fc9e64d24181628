import { besideOf } from '~~/cases/results'
import { mailingById } from '~~/database/mailings'

/** A mailing beside another one: `other` is its number. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  const other = mailingById(db, Number(getQuery(event).other))
  if (!other) throw notFound('The other mailing is not on file.')
  const found = besideOf(db, mailingOf(event), other, clock())
  if (!found) throw notFound('One of the two has not gone out yet.')
  return found
})
