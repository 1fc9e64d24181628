import { signUpRates } from '~~/core/sign-ups'
import { DAY } from '~~/core/time'
import {
  keptAway,
  resultSlices,
  signUpCounts,
  signUpSlices,
  type ResultSlice,
} from '~~/database/sign-ups'

/** What came of a sign-up in the last days: the whole, and by what sets its visitors apart; and what was kept away. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  const { id } = signUpOf(event)
  const query = getQuery(event)
  const days = [7, 30, 90, 365].find((one) => String(one) === query.days) ?? 90
  const by: ResultSlice = resultSlices.find((one) => one === query.by) ?? 'version'
  const now = clock()
  const since = now - days * DAY
  const counts = signUpCounts(db, id, since, now)
  return {
    ...{ days, by, since, counts, rates: signUpRates(counts) },
    slices: signUpSlices(db, id, by, since),
    kept: keptAway(db, id, now - 7 * DAY),
  }
})
