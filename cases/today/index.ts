/** What the first page shows. */
export { runSheet, sequencesOnSheet, sheetDays } from './run-sheet'
