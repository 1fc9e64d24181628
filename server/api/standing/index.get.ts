import { STANDING_MONTH, STANDING_WEEK } from '~~/core/counting'
import { standingRates } from '~~/core/standing'
import { byProvider, mailingsSince } from '~~/database/results'

/** What mailbox providers made of the mail of the last week and month. */
export default defineEventHandler(() => {
  const { db, clock } = satchel()
  const within = (ms: number) =>
    byProvider(db, mailingsSince(db, clock() - ms)).map((row) => ({
      ...row,
      ...standingRates(row),
    }))
  return { week: within(STANDING_WEEK), month: within(STANDING_MONTH) }
})
