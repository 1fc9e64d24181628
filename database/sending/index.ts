/**
 * What goes out, to whom, and what comes of it: recipients and their states, claims, contents as they were sent,
 * opens and clicks, reports.
 */
export {
  actRecorder,
  applyVerdict,
  clicksOf,
  lastAct,
  linkCount,
  moveClicks,
  moveSomeActs,
  recordLeaving,
  unjudgedActs,
  handOverActs,
} from './acts'
export type { NewAct, UnjudgedAct } from './acts'
export { claimsBecomeUncertain, claimsOf, isAnyUnderWay, resendUncertain } from './claims'
export type { Candidate, Settled } from './claims'
export { compiledOf, contentOf, contentsOf, keepContent } from './contents'
export type { Content } from './contents'
export {
  addRecipient,
  isRecipient,
  recipientAdder,
  beginTotals,
  dropOpenRecipients,
  dropRest,
  dueLater,
  moveRecipient,
  nextDueOf,
  nextRecipientDue,
  readRecipient,
  shiftTotals,
} from './recipients'
export {
  addReply,
  forgetRepliesOf,
  moveReplies,
  nextToPassOn,
  repliedCount,
  repliesOf,
  repliesTo,
  replyNotPassedOn,
  replyPassedOn,
} from './replies'
export type { NewReply, ReplyToPassOn } from './replies'
export { addReport, forgetReportsAbout, reportRead, reportsAbout, unreadReports } from './reports'
export { letterByWebKey, setWebVersion, webKey, webMark } from './web-version'
