import { takeProduct, type ApiProduct } from '~~/database/imports'
import { apiProduct } from '~~/shared/api-inputs'

/** Adds products, or changes what is known of them: what letters recommend from. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  return takeApiBatch<ApiProduct>(event, apiProduct, (entry) => takeProduct(db, entry, clock()))
})
