import { sql, type RawBuilder } from 'kysely'
import { fieldValue } from './field-order'
import { one, raw, type Database } from '../query'

/** By what the table of people is sorted: a column of its own, or a field by its key. */
export interface PeopleOrder {
  by: PeopleColumn | { field: string }
  descending: boolean
}
export const peopleColumns = ['joined', 'name', 'address', 'spent', 'opened', 'engagement'] as const
export type PeopleColumn = (typeof peopleColumns)[number]

/** How an order is read: of which table, by which columns, each with an index, and then by the person's id. */
interface Sorted {
  table: RawBuilder<unknown>
  id: RawBuilder<unknown>
  columns: RawBuilder<unknown>[]
  /** Those without a value come last, whichever way; else they count as the smallest, as SQLite has it. */
  emptyLast?: boolean
}

const ofPeople = { table: sql`people`, id: sql`people.id` }
const ofFacts = { table: sql`facts`, id: sql`facts.person_id` }
const sorted: Record<PeopleColumn, Sorted> = {
  joined: { ...ofPeople, columns: [sql`joined_at`] },
  name: {
    ...ofPeople,
    columns: [sql`last_name collate nocase`, sql`first_name collate nocase`],
  },
  address: { ...ofPeople, columns: [sql`normal`] },
  spent: { ...ofFacts, columns: [sql`spent`] },
  opened: { ...ofFacts, columns: [sql`last_opened_at`] },
  engagement: { ...ofFacts, columns: [sql`keenness`] },
}

/**
 * The ids of the people of a choice who come in an order after somebody, without reading those before: deep pages cost
 * what the first one does. Null where nobody has that id any more.
 * @param chosen the condition on a person's id
 */
export function idsAfter(
  db: Database,
  { by, descending }: PeopleOrder,
  chosen: (id: RawBuilder<unknown>) => RawBuilder<unknown>,
  after: number,
  limit: number,
): RawBuilder<{ id: number }> | null {
  const { table, id, columns, emptyLast } =
    typeof by === 'object'
      ? { ...ofPeople, columns: [fieldValue(by.field)], emptyLast: true }
      : sorted[by]
  const found = one(
    db,
    raw(
      sql<{
        at: string
      }>`select json_array(${sql.join(columns)}) as at from ${table} where ${id} = ${after}`,
    ),
  )
  if (!found) return null
  const at = JSON.parse(found.at) as (string | number | null)[]
  const beyond = descending ? sql`<` : sql`>`
  const nullsLast = emptyLast || descending
  const same = (many: number) =>
    columns.slice(0, many).map((column, i) => sql`${column} is ${at[i]}`)
  // First those who are alike in all columns, then those alike in all but the last, and so on.
  const parts = [[...same(columns.length), sql`${id} ${beyond} ${after}`]]
  for (let i = columns.length - 1; i >= 0; i--) {
    const [column, value] = [columns[i]!, at[i]]
    if (value !== null) {
      parts.push([...same(i), sql`${column} ${beyond} ${value}`])
      if (nullsLast) parts.push([...same(i), sql`${column} is null`])
    } else if (!nullsLast) parts.push([...same(i), sql`${column} is not null`])
  }
  const way = descending ? sql`desc` : sql`asc`
  const order = sql.join([...columns, id].map((column) => sql`${column} ${way}`))
  const each = parts.map(
    (part) =>
      sql`select id from (select ${id} as id from ${table} where ${sql.join([...part, chosen(id)], sql` and `)} order by ${order} limit ${limit})`,
  )
  return sql<{ id: number }>`${sql.join(each, sql` union all `)} limit ${limit}`
}
