/**
 * Sign-ups: the form (its parts, consents, languages and look), what somebody entered in it, what is doubtful about that,
 * where a sending stands, and what keeps a form from going live.
 */
export {
  firstLanguage,
  kindNames,
  newPart,
  partKinds,
  partNames,
  partsOf,
  promises,
  signUpKinds,
  tellings,
  textKey,
  type ButtonPart,
  type ConsentPart,
  type FieldPart,
  type FormLook,
  type FormPart,
  type PartKind,
  type SignUpForm,
  type SignUpKind,
  type Telling,
} from './form'
export { fits, mayShow, usualPlacement, type Placement, type Visitor } from './placement'
export { readWords, wordsFor, type Words } from './words'
export { readForm, siteOf } from './read-form'
export { consentsOf, joinedBy, purposesOf, type Consent } from './consent'
export { nameOf, readEntered, type Entered, type FormFault, type Posted } from './entered'
export { doubtOf, doubts, DRAWN_FOR, MOST, MOST_KEPT, WINDOWS, type Doubt } from './doubts'
export {
  CONFIRM_WITHIN,
  LOOK_WITHIN,
  REMIND_AFTER,
  sendingAfter,
  sendingStates,
  type SendingEvent,
  type SendingState,
} from './states'
export { drawnLook, type DrawnLook } from './look'
export { formStyle } from './style'
export {
  fieldLabel,
  formHtml,
  plainFormHtml,
  saidHtml,
  senderLine,
  TRAP,
  type Drawing,
} from './html'
export { signUpMarks, type SignUpFacts, type SignUpMark } from './marks'
export { formFrom, signUpTemplates, type SignUpTemplate } from './templates'
export { judgeTest, MOST_TESTED, testedVersion, type FormTest, type JudgedTest } from './trial'
export { rateOf, signUpRates, type Share, type SignUpCounts, type SignUpRate } from './results'
export { byNumberAsked, costsOf, type AskedVersion, type ByAsked, type FieldCost } from './asking'
