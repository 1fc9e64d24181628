import type { DataChoice, DataEvery } from '~~/core/results'
import { HOUR, nextHour, sameHourAfter } from '~~/core/time'
import { addDataOut, addDataSchedule } from '~~/database/exports'
import { dataOutInput } from '~~/shared/data-out-input'

/** Asks the engine to take data out, or, with `every`, to do so again and again from now on. */
export default defineEventHandler(async (event) => {
  const { every, hour, mailTo, ...choice } = await readInput(event, dataOutInput)
  const { db, clock } = satchel()
  const now = clock()
  if (!every) return { id: addDataOut(db, choice as DataChoice, now) }
  const { zone } = account()
  const nextAt =
    hour === null
      ? sameHourAfter(now, every as DataEvery, zone)
      : nextHour(hour, now - (now % HOUR) + HOUR, zone)
  const schedule = { choice: choice as DataChoice, every: every as DataEvery, nextAt }
  return { schedule: addDataSchedule(db, { ...schedule, mailTo: mailTo || null }, now) }
})
