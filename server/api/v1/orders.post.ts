import { takeOrder, type ApiOrder } from '~~/database/imports'
import { apiOrder } from '~~/shared/api-inputs'

/** Adds orders of people on file; the same number twice is taken once. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  return takeApiBatch<Omit<ApiOrder, 'at'> & { at?: string }>(event, apiOrder, (entry) =>
    takeOrder(db, { ...entry, at: momentOf(entry.at, clock()) }, clock()),
  )
})
