import { rm } from 'node:fs/promises'
import { daysKept } from '../core/retention'
import { DAY, sameHourAfter } from '../core/time'
import { readAccount } from '../database/account'
import {
  dataOutsBefore,
  listDataSchedules,
  removeDataOut,
  runDataSchedule,
} from '../database/exports'
import { lastErasure } from '../database/people'
import { dataOutPath } from './data-out'
import type { Work } from './engine'

/** Files of data are kept for so long. */
const KEPT = daysKept('exports') * DAY

/** Begins what schedules have due, and takes files away: those older than they are kept, or than an erasure. */
export const dataSchedules: Work = async ({ db, clock, settings }) => {
  const now = clock()
  const zone = readAccount(db)?.zone
  let busy = false
  for (const schedule of listDataSchedules(db)) {
    if (schedule.next_at > now || !zone) continue
    // After a jump only one file is made, not one for each time that was passed.
    let next = schedule.next_at
    while (next <= now) next = sameHourAfter(next, schedule.every, zone)
    busy = runDataSchedule(db, schedule, next, now) || busy
  }
  // Whoever was erased since may be in a file made before.
  const before = Math.max(now - KEPT, lastErasure(db) ?? 0)
  for (const id of dataOutsBefore(db, before)) {
    await rm(dataOutPath(settings.data, id), { force: true })
    removeDataOut(db, id)
  }
  return busy
}
