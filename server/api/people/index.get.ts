import { tierOf } from '~~/core/standing'
import { readFields } from '~~/database/fields'
import {
  countPeople,
  peopleColumns,
  peoplePage,
  pulsesOf,
  valuesOf,
  type PeopleChoice,
  type PeopleColumn,
  type PeopleOrder,
} from '~~/database/people'

const PAGE = 100

/** A page of people with their pulses, in the order asked for; `count` is of all that were chosen. */
export default defineEventHandler((event) => {
  const query = getQuery(event)
  const { db, clock } = satchel()
  const choice: PeopleChoice = {
    listId: query.list ? Number(query.list) : undefined,
    setAside: query.aside === '1',
    search:
      typeof query.search === 'string' && query.search.trim() !== ''
        ? query.search.trim().slice(0, 100)
        : undefined,
  }
  const offset = Math.max(0, Number(query.offset) || 0)
  const rows = peoplePage(db, choice, PAGE, offset, orderOf(query.sort, query.way))
  const pulses = pulsesOf(
    db,
    rows.map(({ id }) => id),
  )
  const now = clock()
  return {
    count: countPeople(db, choice),
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
    const column = peopleColumns.find((one) => one === sort) as PeopleColumn | undefined
    if (column) return { by: column, descending }
    const field = readFields(db).find(
      ({ key }) => sort === `field:${key}` && !key.endsWith('_name'),
    )
    return field ? { by: { field: field.key }, descending } : { by: 'joined', descending: true }
  }
})
