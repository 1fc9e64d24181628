import { tierOf } from '../../core/standing'
import type { Database } from '../../database'
import {
  countPeople,
  peopleColumns,
  peoplePage,
  pulsesOf,
  readFields,
  valuesOf,
  type PeopleOrder,
} from '../../database/people'
import { choiceKept, type TableChoice } from '../../database/segments'

const PAGE = 100

/** A page of the table of people: those after so many others (`offset`), or after somebody, which costs the same however deep it is. */
export interface AskedTable {
  choice: TableChoice
  order: PeopleOrder
  offset: number
  after: number | null
}

/** The people of a page with their pulses. `count` is of all that were chosen; it goes with the first page. */
export function peopleTable(
  db: Database,
  { choice, order, offset, after }: AskedTable,
  now: number,
) {
  const chosen = choiceKept(db, choice, now, offset === 0)
  const rows = peoplePage(db, chosen, PAGE, after === null ? offset : { after, offset }, order)
  const pulses = pulsesOf(
    db,
    rows.map(({ id }) => id),
  )
  return {
    count: offset === 0 ? countPeople(db, chosen) : null,
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
}

/** The order that is asked for: by a column, or by a field ("field:town"); by joining where it is none of these. */
export function orderOf(db: Database, sort: unknown, way: unknown): PeopleOrder {
  const descending = way !== 'up'
  const column = peopleColumns.find((one) => one === sort)
  if (column) return { by: column, descending }
  const field = readFields(db).find(({ key }) => sort === `field:${key}` && !key.endsWith('_name'))
  return field ? { by: { field: field.key }, descending } : { by: 'joined', descending: true }
}
