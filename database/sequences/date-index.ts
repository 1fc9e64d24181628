import { sql, type RawBuilder } from 'kysely'
import { JOINED, type SequenceMap } from '../../core/sequences'
import { all, raw, type Database } from '../query'

/*
 * A day's dates are found by an index over the month and day of their field: there is one for each field whose dates let
 * people into a running sequence, and for no other, since it is kept whenever anybody changes.
 */

/** The month and day ("02-28") of a date field of `people`, as the index says it. Keys are made by us: letters, figures and `_`. */
export function monthDayOf(field: string, people?: string): RawBuilder<string> {
  const fields = people ? sql.ref(`${people}.fields`) : sql.ref('fields')
  return sql<string>`substr(json_extract(${fields}, ${sql.lit(`$."${field}"`)}), 6)`
}

const nameOf = (field: string) => `people_dates_${field}`
const isKey = (field: string) => /^[a-z0-9_]+$/i.test(field)

/** Keeps an index for each field that a start of these maps asks by its date, and drops those of others. */
export function indexDates(db: Database, maps: readonly SequenceMap[]) {
  const wanted = new Set(
    maps
      .flatMap(({ start }) => start.by)
      .flatMap((start) => (start.is === 'date' && start.of !== JOINED ? [start.of] : []))
      .filter(isKey),
  )
  const there = all(
    db,
    raw(sql<{ name: string }>`
      select name from sqlite_master where type = 'index' and name like 'people\_dates\_%' escape '\\'`),
  ).map(({ name }) => name)
  const names = new Set([...wanted].map(nameOf))
  for (const name of there) if (!names.has(name)) db.sqlite.exec(`drop index "${name}"`)
  for (const field of wanted)
    if (!there.includes(nameOf(field))) {
      const { sql: value } = raw(sql`${monthDayOf(field)}`).compile()
      db.sqlite.exec(`create index "${nameOf(field)}" on people (${value})`)
    }
}
