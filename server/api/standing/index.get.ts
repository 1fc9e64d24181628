import { STANDING_MONTH, STANDING_WEEK } from '~~/core/counting'
import { standingRates } from '~~/core/standing'
import { providersSince } from '~~/database/results'

/** What mailbox providers made of the mail that was accepted in the last week and month, whatever kind it was. */
export default defineEventHandler(() => {
  const { db, clock } = satchel()
  const within = (ms: number) =>
    providersSince(db, clock() - ms).map((row) => ({
      ...row,
      ...standingRates(row),
    }))
  return { week: within(STANDING_WEEK), month: within(STANDING_MONTH) }
})
