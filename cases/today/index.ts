/** What the first page shows. */
export { runSheet } from './run-sheet'
