import { readClock, worldFollowed } from '~~/database/account'

/** The practice clock for the practice world, which says how far it has followed. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  const setting = readClock(db)
  if (!setting) throw notFound('There is no practice clock here.')
  const followed = Number(getQuery(event).followed)
  if (setting.jumpTo !== null && Number.isFinite(followed))
    worldFollowed(db, Math.min(Math.floor(followed), clock()))
  return { now: clock(), rate: setting.jumpTo === null ? setting.rate : 0 }
})
