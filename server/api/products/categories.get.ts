import { productCategories } from '~~/database/picks'

/** The categories of the products there are. */
export default defineEventHandler(() => productCategories(satchel().db))
