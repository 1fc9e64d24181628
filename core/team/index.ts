/** The team: who may do what, and how long sessions go on. */
export { isAtLeast, roles, rolesInWords } from './roles'
export type { Role } from './roles'
export {
  handlerOf,
  handlerOfFile,
  mayCall,
  permissionGaps,
  permissionOf,
  permissions,
} from './permissions'
export type { Handler, Permission } from './permissions'
export {
  CONFIRMED_FOR,
  deviceOf,
  RESET_WORKS_FOR,
  SESSION_IDLE,
  SESSION_LONGEST,
  sessionEnds,
} from './sessions'
export type { Present } from './present'
