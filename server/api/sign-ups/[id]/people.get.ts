import { DAY } from '~~/core/time'
import { resultSlices, sendingsBehind, signUpOutcomes } from '~~/database/sign-ups'

/** The most that are listed. */
const MOST = 500

/** Of whom a figure of a sign-up's results tells. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  const { id } = signUpOf(event)
  const query = getQuery(event)
  const days = [7, 30, 90, 365].find((one) => String(one) === query.days) ?? 90
  const outcome = signUpOutcomes.find((one) => one === query.outcome)
  const by = resultSlices.find((one) => one === query.by)
  if (!outcome || !by) throw notFound('There is no such figure.')
  const what = typeof query.what === 'string' ? query.what.slice(0, 400) : null
  const of = { outcome, by, what, since: clock() - days * DAY }
  return sendingsBehind(db, id, of, clock(), MOST)
})
