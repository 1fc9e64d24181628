import { readClock } from '~~/database/account'

/** The clock as the pages show it; `practice` is null where time is the host's. */
export default defineEventHandler(() => {
  const { db, clock, hostClock } = satchel()
  return { now: clock(), host: hostClock(), practice: readClock(db) }
})
