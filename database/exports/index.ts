/** What is exported: people, everything as files, and what SQL may ask. */
export { MOST_ROWS, MOST_SAVED, SqlFault, askSql, peopleOfSql } from './ask-sql'
export type { SqlAnswer } from './ask-sql'
export {
  addDataOut,
  addDataSchedule,
  choiceOf,
  dataOutById,
  dataOutByKey,
  dataOutMade,
  dataOutsBefore,
  listDataOuts,
  listDataSchedules,
  removeDataOut,
  removeDataSchedule,
  runDataSchedule,
} from './data-outs'
export type { DataCounts } from './data-outs'
export { dataRows } from './data-rows'
export { exportPeople } from './people'
export type { ExportChoice } from './people'
export { sqlViews } from './sql-views'
