/**
 * Choices made in a page on something that stands on the server: kept and shown whatever answers when, and never
 * lost between two people. Pure data; who asks and who answers is the page's business.
 */
export {
  choose,
  heard,
  keepMine,
  kept,
  lapsed,
  saved,
  settledWith,
  shown,
  takeTheirs,
  toSave,
} from './kept'
export { unreachable, clashed, refused } from './kept'
export type { Asked, Clash, Join, Kept, Problem, Versioned } from './kept'
export { isAlike, joinFields } from './join'
