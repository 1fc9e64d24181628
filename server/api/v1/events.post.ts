import { takeEvent, type ApiEvent } from '~~/database/imports'
import { apiEvent } from '~~/shared/api-inputs'

/** Adds events to people on file. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  return takeApiBatch<Omit<ApiEvent, 'at'> & { at?: string }>(event, apiEvent, (entry) =>
    takeEvent(db, { ...entry, at: momentOf(entry.at, clock()) }),
  )
})
