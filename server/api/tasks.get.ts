import { dayOf } from '~~/core/time'
import { teamAddresses } from '~~/database/account'
import { tasksDone, tasksToDo } from '~~/database/people'

const SHOWN = 200

/** What the team is to do, the most pressing first, and what it did last. */
export default defineEventHandler(() => {
  const { db, clock } = satchel()
  const today = dayOf(clock(), account().zone)
  return {
    ...tasksToDo(db, today, SHOWN),
    ...{ today, done: tasksDone(db, SHOWN), team: teamAddresses(db) },
  }
})
