/** Sign-ups: forms and their versions, what was sent in by them and the mail it gets, who saw them, and what came of it. */
export {
  addSignUp,
  changeSignUp,
  formOfVersion,
  isPublished,
  liveSignUp,
  liveSignUps,
  moveSignUp,
  publishSignUp,
  readSignUps,
  setSignUpDeleted,
  signUpById,
  signUpName,
  versionsOf,
  type Published,
  type SignUp,
} from './sign-ups'
export {
  addSending,
  forgetOldSendings,
  forgetSendingsOf,
  isWorkUsed,
  lastMailTo,
  mailAgain,
  moveSending,
  moveSendings,
  remindDue,
  sameSending,
  sendingById,
  sendingOfLink,
  sendingsBefore,
  sendingsIn,
  sendingsOf,
  sendingsOver,
  type NewSending,
  type Sending,
} from './sendings'
export { LETTERS_LOOKED_AT, usedByLetters } from './asked'
export { nextSignUpDue } from './due'
export { nextSendingToMail, sendingMailed, sendingNotMailed } from './mail'
export { aboutFile, addFile, fileById, type PromisedFile } from './files'
export {
  addCall,
  callAgain,
  callById,
  callsDue,
  callTried,
  forgetOldCalls,
  hookKey,
  lastCalls,
} from './webhooks'
export type { WebhookCall } from './webhooks'
export { sendingsToTell, sendingsTold } from './telling'
export { endedTests, endTest, runningTest, testVersion, versionCounts } from './tests'
export type { RunningTest } from './tests'
export { recordVisit, visitorOf, type Visit } from './visits'
export {
  askedVersions,
  keptAway,
  resultSlices,
  sendingsBehind,
  signUpCounts,
  signUpOutcomes,
  signUpSlices,
  type ResultSlice,
  type SignUpOutcome,
  type SignUpSlice,
} from './results'
export type { SignUpMail, SignUpState } from './schema'
