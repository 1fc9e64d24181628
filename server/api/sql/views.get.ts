import { readFields } from '~~/database/fields'
import { MOST_ROWS, MOST_SAVED } from '~~/database/ask-sql'
import { sqlViews } from '~~/database/sql-views'

/** What can be asked in SQL. */
export default defineEventHandler(() => ({
  mostRows: MOST_ROWS,
  mostSaved: MOST_SAVED,
  views: sqlViews(readFields(satchel().db)).map(({ name, about, columns }) => ({
    name,
    about,
    columns,
  })),
}))
