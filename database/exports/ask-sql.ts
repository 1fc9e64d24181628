import { randomBytes } from 'node:crypto'
import { join } from 'node:path'
import Sqlite from 'better-sqlite3'
import type { Field } from '../../core/people'
import { createView, sqlViews } from './sql-views'

/** Rows that are shown at most. */
export const MOST_ROWS = 1_000
/** People that can be saved as a segment at most. */
export const MOST_SAVED = 200_000
const LONGEST_TEXT = 2_000

export interface SqlAnswer {
  columns: string[]
  rows: (string | number | null)[][]
  /** There are more rows than are shown. */
  more: boolean
  /** The column that says which person a row is about; -1 where there is none. */
  person: number
  ms: number
}

/** What is wrong with a query, in words for the one who wrote it. */
export class SqlFault extends Error {}

/** Answers a query over the documented views, the first rows of it. Throws an `SqlFault`. */
export function askSql(folder: string, fields: readonly Field[], query: string): SqlAnswer {
  return asking(folder, fields, query, (statement) => {
    const began = performance.now()
    const columns = statement.columns()
    const rows: SqlAnswer['rows'] = []
    let more = false
    for (const row of statement.raw().iterate()) {
      if (rows.length === MOST_ROWS) {
        more = true
        break
      }
      rows.push((row as unknown[]).map(shown))
    }
    return {
      columns: columns.map(({ name }) => name),
      rows,
      more,
      person: personColumn(columns),
      ms: Math.round(performance.now() - began),
    }
  })
}

/** The people a query is about, each once. Throws an `SqlFault`, also where it is not about people. */
export function peopleOfSql(folder: string, fields: readonly Field[], query: string): number[] {
  return asking(folder, fields, query, (statement) => {
    const column = personColumn(statement.columns())
    if (column < 0)
      throw new SqlFault(
        'This query is not about people: it needs a column person_id, or people.id.',
      )
    const ids = new Set<number>()
    for (const row of statement.raw().iterate()) {
      const id = (row as unknown[])[column]
      if (Number.isSafeInteger(id)) ids.add(id as number)
      if (ids.size > MOST_SAVED)
        throw new SqlFault(`These are more than ${MOST_SAVED.toLocaleString('en-GB')} people.`)
    }
    return [...ids]
  })
}

/**
 * Opens the data for one query in a way that it can reach nothing but the views. The file is attached
 * under a name that nobody can guess or ask for, every table of it is covered by an empty view of its
 * name, and the connection takes only statements that read.
 */
function asking<T>(
  folder: string,
  fields: readonly Field[],
  query: string,
  work: (statement: Sqlite.Statement) => T,
): T {
  const text = query.trim().replace(/;\s*$/, '')
  if (!/^(select|with|values)\b/i.test(text))
    throw new SqlFault('A query begins with SELECT or WITH.')
  // What could tell the schema’s name, or reach around the views.
  const closed = /\b(sqlite_\w*|pragma\w*|dbstat)\b/i.exec(text)
  if (closed) throw new SqlFault(`“${closed[1]}” can’t be asked here.`)
  const sqlite = new Sqlite(':memory:')
  const secret = `s${randomBytes(16).toString('hex')}`
  try {
    sqlite.prepare(`attach ? as ${secret}`).run(join(folder, 'satchel.db'))
    const views = sqlViews(fields)
    for (const view of views) sqlite.exec(createView(view, secret))
    const names = new Set(views.map(({ name }) => name))
    const tables = sqlite
      .prepare(`select name from ${secret}.sqlite_schema where type in ('table', 'view')`)
      .pluck()
      .all() as string[]
    for (const name of tables)
      if (!names.has(name) && !name.startsWith('sqlite_'))
        sqlite.exec(`create temp view "${name}" as select null as "not open to queries" where 0`)
    sqlite.pragma('query_only = on')
    const statement = sqlite.prepare(text)
    if (!statement.reader || !statement.readonly)
      throw new SqlFault('Only what reads can be asked.')
    return work(statement)
  } catch (error) {
    if (error instanceof SqlFault) throw error
    if (!(error instanceof Sqlite.SqliteError || error instanceof RangeError)) throw error
    throw new SqlFault(inWords(error.message.replaceAll(secret, 'data')))
  } finally {
    sqlite.close()
  }
}

function personColumn(columns: Sqlite.ColumnDefinition[]): number {
  const origin = columns.findIndex(
    ({ table, column }) => column === 'person_id' || (table === 'people' && column === 'id'),
  )
  return origin >= 0 ? origin : columns.findIndex(({ name }) => name === 'person_id')
}

function shown(value: unknown): string | number | null {
  if (value === null || typeof value === 'number') return value
  if (Buffer.isBuffer(value)) return `(${value.length} bytes)`
  const text = String(value)
  return text.length > LONGEST_TEXT ? `${text.slice(0, LONGEST_TEXT)}…` : text
}

/** What SQLite says, as a sentence. */
function inWords(message: string): string {
  const said = message.replace(/^(.)/, (first) => first.toUpperCase())
  return /[.!?]$/.test(said) ? said : `${said}.`
}
