import { sql, type RawBuilder } from 'kysely'
import { jobIsOpen } from '../jobs'
import { one, q, raw, type Database } from '../query'

/** Up to so many people are sorted by a field in no time without an index. */
const FEW = 30_000

/**
 * People sorted by a field of the account's own: those with a value in its order, then those without.
 * One index for each field that is really sorted by keeps that quick with a million people.
 */
export function idsInFieldOrder(
  key: string,
  chosen: RawBuilder<unknown>,
  descending: boolean,
  limit: number,
  offset: number,
) {
  const way = descending ? sql`desc` : sql`asc`
  const value = valueOf(key)
  const most = sql`limit ${limit + offset}`
  return sql<{ id: number }>`
    select id from (select people.id from people where ${value} is not null and ${chosen} order by ${value} ${way}, people.id ${way} ${most})
    union all
    select id from (select people.id from people where ${value} is null and ${chosen} order by people.id ${way} ${most})
    limit ${limit} offset ${offset}`
}

/** Whether sorting by a field would wait for an index that nobody makes yet. */
export function wantsFieldOrder(db: Database, key: string): boolean {
  if (hasFieldOrder(db, key) || jobIsOpen(db, 'order-field')) return false
  return (
    one(
      db,
      q
        .selectFrom(q.selectFrom('facts').select('person_id').limit(FEW).as('some'))
        .select((eb) => eb.fn.countAll<number>().as('n')),
    )!.n >= FEW
  )
}

/** Makes the index of a field's order. Making it again changes nothing. */
export function makeFieldOrder(db: Database, key: string) {
  const value = valueOf(key).compile(q).sql
  db.sqlite.exec(
    `create index if not exists ${indexOf(key)} on people (${value}, id) where ${value} is not null`,
  )
}

/** Takes it away, where a field is retired or joined to another. */
export function dropFieldOrder(db: Database, key: string) {
  db.sqlite.exec(`drop index if exists ${indexOf(key)}`)
}

export function hasFieldOrder(db: Database, key: string): boolean {
  const found = sql<{ n: number }>`
    select count(*) as n from sqlite_schema where type = 'index' and name = ${indexOf(key)}`
  return one(db, raw(found))!.n === 1
}

/** The value of a field, spelt as its index spells it. */
export const fieldValue = (key: string) => valueOf(key)

/** SQLite takes an index on an expression only where the query spells it the same, so the key is no parameter. */
function valueOf(key: string): RawBuilder<unknown> {
  return sql`json_extract(fields, ${sql.raw(`'$.${plain(key)}'`)})`
}

function indexOf(key: string): string {
  return `people_by_field_${plain(key)}`
}

/** Keys are made of small letters, digits and low lines (`fieldKeyFor`); nothing else goes into SQL as text. */
function plain(key: string): string {
  if (!/^[a-z0-9_]+$/.test(key)) throw new Error(`${key} is no key of a field.`)
  return key
}
