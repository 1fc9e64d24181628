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
  type SignUp,
} from './sign-ups'
export {
  addSending,
  forgetOldSendings,
  forgetSendingsOf,
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
export { nextSendingToMail, sendingMailed, sendingNotMailed } from './mail'
export { recordVisit, type Visit } from './visits'
export { keptAway, resultSlices, signUpCounts, signUpSlices, type ResultSlice } from './results'
export type { SignUpMail, SignUpState } from './schema'
