import { exportColumns } from '~~/core/people'
import { readFields } from '~~/database/people'

/** What can be taken out of each person. */
export default defineEventHandler(() =>
  exportColumns(readFields(satchel().db), account().currency).map(({ key, name }) => ({
    key,
    name,
  })),
)
