import { readerValue } from '~~/core/letters'
import { countAudience, countGaps } from '~~/database/segments'
import { readFields } from '~~/database/people'
import { audienceOf, countWithout } from '~~/database/mailings'

/** How many of the audience have what a fill-in names; null where there is no audience yet. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  const audience = audienceOf(db, mailingOf(event))
  const path = String(getQuery(event).path ?? '')
  const key = /^person\.(\w+)$/.exec(path)?.[1]
  const isField = key !== undefined && readFields(db).some((field) => field.key === key)
  if (!isField && !readerValue(path)) throw notFound('There is no such value.')
  if (!audience) return { have: null, of: null }
  const now = clock()
  const without = isField
    ? countGaps(db, audience, key, now)
    : countWithout(db, audience, path, now)
  if (without === null) throw notFound('There is no such event.')
  const of = countAudience(db, audience, now)
  return { have: of - without, of }
})
