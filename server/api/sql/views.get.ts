import { readFields } from '~~/database/people'
import { MOST_ROWS, MOST_SAVED, sqlViews } from '~~/database/exports'

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
