import { practiceTime, withRate } from '~~/core/time'
import { readClock, writeClock } from '~~/database/account'
import { clockInput } from '~~/shared/account-inputs'

/** Another rate for the practice clock, or a jump ahead. */
export default defineEventHandler(async (event) => {
  const { rate, jumpTo } = await readInput(event, clockInput)
  const { db, hostClock } = satchel()
  const setting = readClock(db)
  if (!setting) throw refused('Only the practice world has a clock that can be set.')
  if (jumpTo !== undefined) {
    if (jumpTo <= practiceTime(setting, hostClock()))
      throw refused('The clock only goes forward. Choose a time that is still to come.')
    const now = practiceTime(setting, hostClock())
    writeClock(db, { anchorReal: hostClock(), anchorPractice: now, rate: setting.rate, jumpTo })
  } else if (rate !== undefined) writeClock(db, withRate(setting, hostClock(), rate))
  return { practice: readClock(db) }
})
