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
  takeEvent,
  takeOrder,
  takePerson,
  takeProduct,
  useApiToken,
} from './api'
export type { ApiEvent, ApiOrder, ApiPerson, ApiProduct } from './api'
export { importCounter } from './counter'
export {
  createImport,
  endImport,
  importById,
  importNotices,
  recentImports,
  updateImport,
} from './imports'
export type { Import } from './imports'
export { mappingFor, rememberMapping } from './mappings'
export type { UnderstoodRow } from './rows'
export { UNDO_DAYS, undoSomeOfImport } from './undo'
export type { Undone } from './undo'
export { importWriter } from './writer'
