import { DAY } from '~~/core/time'
import { wilson } from '~~/core/results'
import { byProvider, mailingsSince } from '~~/database/results'

/** What mailbox providers made of the mail of the last 7 and 30 days. */
export default defineEventHandler(() => {
  const { db, clock } = satchel()
  const within = (days: number) =>
    byProvider(db, mailingsSince(db, clock() - days * DAY)).map((row) => ({
      ...row,
      bounced: { n: row.bounced, ...wilson(row.bounced, row.delivered + row.bounced) },
      complained: { n: row.complained, ...wilson(row.complained, row.delivered) },
    }))
  return { week: within(7), month: within(30) }
})
