import { sql, type RawBuilder, type SqlBool } from 'kysely'
import { statesOf, type Count, type StateCount } from './counts'

/** The column of a recipient that says when they did it. */
const timeOf = { opened: 'opened_at', clicked: 'clicked_at', left: 'left_at' } as const

/**
 * Whether a recipient is counted so, in SQL's own words rather than bound values: only then does SQLite see that it is
 * the condition of a partial index.
 * @param row What the row of `recipients` is called in the statement.
 */
export function isCountedSql(count: Count, row = 'r'): RawBuilder<SqlBool> {
  if (count in timeOf)
    return sql<SqlBool>`${sql.ref(`${row}.${timeOf[count as keyof typeof timeOf]}`)} is not null`
  const states = sql.raw(statesOf[count as StateCount].map((state) => `'${state}'`).join(', '))
  return sql<SqlBool>`${sql.ref(`${row}.state`)} in (${states})`
}

/** How many of some rows are counted so; 0 of none. */
export function sumSql(count: Count, row = 'r'): RawBuilder<number> {
  return sql<number>`coalesce(sum(${isCountedSql(count, row)}), 0)`
}

/**
 * How many of a mailing are counted so.
 * @param totals What the row of `mailing_totals` is called in the statement.
 */
export function totalSql(count: StateCount, totals = 't'): RawBuilder<number> {
  return sql<number>`(${sql.raw(totalWords(count, totals))})`
}

/** The same as text, for statements that are not built. */
export function totalWords(count: StateCount, totals = 't'): string {
  return statesOf[count].map((state) => `${totals}.${state}`).join(' + ')
}
