import { waterfallTests } from '~~/core/delivery'
import { dropOuts } from '~~/database/segments'
import { audienceOf } from '~~/database/mailings'

/** Who of a list drops out of a mailing's audience at a step of the waterfall, 50 at a time. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  const audience = audienceOf(db, mailingOf(event))
  const query = getQuery(event)
  const step = waterfallTests.find((test) => test === query.step)
  if (!audience || !step) throw notFound('There is no such step.')
  const offset = Math.max(0, Math.floor(Number(query.offset) || 0))
  return dropOuts(db, audience, step, clock(), { limit: 50, offset })
})
