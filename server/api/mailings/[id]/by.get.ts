import { partRates } from '~~/core/results'
import { resultsBy, waysToSplit } from '~~/database/results'

/** What came of a mailing by parts of its people: `what` is one of the ways that are told with it. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  const { id } = mailingOf(event)
  const { what } = getQuery(event)
  const by = typeof what === 'string' && what ? what : 'provider'
  const parts = resultsBy(db, id, by, clock())
  if (!parts) throw notFound('A mailing can’t be looked at so.')
  return {
    by,
    ways: waysToSplit(db, id),
    parts: parts.map(partRates),
  }
})
