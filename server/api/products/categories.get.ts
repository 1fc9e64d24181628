import { productCategories } from '~~/database/letters'

/** The categories of the products there are. */
export default defineEventHandler(() => productCategories(satchel().db))
