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
export { changeWord, changedWords, readerWords, wordVersion } from './words'
export {
  askOwn,
  forgetRequestsTo,
  nextRequestToMail,
  requestMailed,
  requestNotMailed,
  requestOf,
  requestsOf,
  useRequest,
  type Request,
} from './requests'
export type { OwnRequest } from './schema'
