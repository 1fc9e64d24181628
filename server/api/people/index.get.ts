import { orderOf, peopleTable, type AskedTable } from '~~/cases/people'
import { addJob } from '~~/database/jobs'
import { wantsFieldOrder } from '~~/database/people'

/**
 * A page of people with their pulses, in the order asked for, after so many others (`offset`) or after somebody (`after`).
 * Those of a segment are asked of a process beside this one: finding them may take a while.
 */
export default defineEventHandler((event) => {
  const query = getQuery(event)
  const { db, clock } = satchel()
  const order = orderOf(db, query.sort, query.way)
  if (typeof order.by === 'object' && wantsFieldOrder(db, order.by.field))
    addJob(db, 'order-field', { key: order.by.field }, clock())
  const asked: AskedTable = {
    choice: peopleChoice(query),
    order,
    offset: Math.max(0, Number(query.offset) || 0),
    after: Number(query.after) || null,
  }
  return asked.choice.segmentId === undefined
    ? peopleTable(db, asked, clock())
    : askLong('people', { asked, now: clock() })
})
