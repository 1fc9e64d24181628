import { audienceWaterfall, countGaps } from '~~/database/audience'
import { readFields } from '~~/database/fields'
import { audienceOf } from '~~/database/mailings'

/** How many of the audience have a value for a field; null where there is no audience yet. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  const audience = audienceOf(mailingOf(event))
  const key = String(getQuery(event).key ?? '')
  if (!readFields(db).some((field) => field.key === key)) throw notFound('There is no such field.')
  if (!audience) return { have: null, of: null }
  const now = clock()
  const of = audienceWaterfall(db, audience, now).at(-1)!.left
  return { have: of - countGaps(db, audience, key, now), of }
})
