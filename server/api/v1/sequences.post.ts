import { takeArrival, type ApiArrival } from '~~/database/imports'
import { apiArrival } from '~~/shared/api-inputs'

/** Lets people on file into sequences that begin by the API, as far as they may come in. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  return takeApiBatch<ApiArrival>(event, apiArrival, (entry) => takeArrival(db, entry, clock()))
})
