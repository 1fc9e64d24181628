/**
 * What comes in by file and by the API: rows are understood in core, counted first and written then, and can be
 * undone.
 */
export {
  EntryFault,
  addApiToken,
  answerBefore,
  apiTokens,
  keepAnswer,
  revokeApiToken,
  takeBatch,
  takeArrival,
  takeEvent,
  takeOrder,
  takePerson,
  takeProduct,
  useApiToken,
} from './api'
export type { ApiArrival, ApiEvent, ApiOrder, ApiPerson, ApiProduct } from './api'
export { importCounter } from './counter'
export {
  countNotices,
  createImport,
  endImport,
  forgetNotices,
  importById,
  importNotices,
  leaveOut,
  recentImports,
  rememberMade,
  rowsLeftOut,
  updateImport,
} from './imports'
export type { Import } from './imports'
export { mappingFor, rememberMapping } from './mappings'
export type { UnderstoodRow } from './rows'
export { UNDO_DAYS, undoSomeOfImport, undoMade } from './undo'
export type { Undone } from './undo'
export { importWriter } from './writer'
