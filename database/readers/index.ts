/** What readers ask for and change by themselves: pauses, limits of their own, and the proof of each change. */
export {
  endPause,
  heldBackAt,
  limitMail,
  mergeOwnLimits,
  notPausedAt,
  ownLimitsOf,
  pauseMail,
  pauseOf,
  underOwnLimitAt,
} from './limits'
export { moveOwnChanges, ownChangesOf, recordOwnChange } from './own-changes'
export type { OwnAct } from './own-changes'
