/**
 * Mailings up to the moment in which they go out: plan, parts, variants, proof, what will happen, approvals,
 * trials, and who would still get them when.
 */
export { answerApproval, approvalOf, askApproval, withdrawApproval } from './approvals'
export { bestHourOfEach, everybodysOpens, opensOf } from './best-hours'
export { eachForeseen } from './foreseen'
export { goalSegment, goalsToWatch, noteGoalHits, noteGoalStarts } from './goal-segments'
export { fingerprintOf, goesOut, happeningOf } from './happening'
export {
  audienceOf,
  overrulingOf,
  createMailing,
  deleteMailing,
  draftsBesides,
  dueMailings,
  goOnWithMailing,
  holdMailing,
  linkOf,
  mailingById,
  mailingNames,
  mailingsWithTotals,
  moveMailing,
  nextMailingDue,
  noteDeath,
  recountTotals,
  resetTotals,
  saveLinks,
  sendingMailings,
  setWaitingNote,
  settingsVersion,
  totalsOf,
  updateMailing,
  wentOnAt,
  wishOf,
} from './mailings'
export type { Mailing, MailingWithTotals } from './mailings'
export { otherMailOf } from './other-mail'
export {
  addParts,
  allPartsBegun,
  beginPart,
  countsOfPart,
  countsSoFar,
  decisionDue,
  firstLocalTime,
  holdOut,
  partsOfMailing,
  planOf,
  planVersion,
  watchAnew,
  zoneFields,
} from './parts'
export type { Part } from './parts'
export { senderOf } from './sender'
export { planRecipients } from './plan-recipients'
export { countWithout, readerPaths, readerValuesFor } from './reader-values'
export { countTruths, readerOf, renditionsFor, truthsOf } from './renditions'
export {
  askTrials,
  changeTrial,
  keepTrialMailbox,
  removeTrialMailbox,
  takeTrial,
  trialMailboxes,
  trialsOf,
  trialsToLookFor,
} from './trials'
export type { TrialLetter, TrialMailbox } from './trials'
export { fixVariants, variantLetters, variantsOf } from './variants'
