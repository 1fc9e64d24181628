/** People: the table that shows them. */
export { orderOf, peopleTable } from './table'
export type { AskedTable } from './table'
