import { tierOf } from '~~/core/standing'
import {
  wantsFieldOrder,
  readFields,
  countPeople,
  peoplePage,
  pulsesOf,
  valuesOf,
  peopleColumns,
  type PeopleOrder,
} from '~~/database/people'
import { addJob } from '~~/database/jobs'

const PAGE = 100

/**
 * A page of people with their pulses, in the order asked for, after so many others (`offset`) or after somebody (`after`,
 * which costs the same however deep it is). `count` is of all that were chosen; it goes with the first page.
 */
export default defineEventHandler((event) => {
  const query = getQuery(event)
  const { db, clock } = satchel()
  const choice = peopleChoice(query)
  const offset = Math.max(0, Number(query.offset) || 0)
  const order = orderOf(query.sort, query.way)
  const after = Number(query.after) || null
  const rows = peoplePage(db, choice, PAGE, after === null ? offset : { after, offset }, order)
  if (typeof order.by === 'object' && wantsFieldOrder(db, order.by.field))
    addJob(db, 'order-field', { key: order.by.field }, clock())
  const pulses = pulsesOf(
    db,
    rows.map(({ id }) => id),
  )
  const now = clock()
  return {
    count: offset === 0 ? countPeople(db, choice) : null,
    people: rows.map((row) => ({
      id: row.id,
      address: row.address,
      name: [row.first_name, row.last_name].filter(Boolean).join(' '),
      values: valuesOf(row),
      joinedAt: row.joined_at,
      orders: row.orders,
      spent: row.spent,
      openedAt: row.last_opened_at,
      tier: tierOf(row.keenness, now),
      pulse: pulses.get(row.id)!,
    })),
  }

  function orderOf(sort: unknown, way: unknown): PeopleOrder {
    const descending = way !== 'up'
    const column = peopleColumns.find((one) => one === sort)
    if (column) return { by: column, descending }
    const field = readFields(db).find(
      ({ key }) => sort === `field:${key}` && !key.endsWith('_name'),
    )
    return field ? { by: { field: field.key }, descending } : { by: 'joined', descending: true }
  }
})
