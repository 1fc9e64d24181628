/** Sequences, and how people go through them. */
export {
  advanceDue,
  eachMailAhead,
  nextStepDue,
  peopleInside,
  standingAt,
  trafficOf,
} from './enrolments'
export { happeningsAt } from './happened'
export { moveSomeInside, whoGoesWhere } from './publishing'
export { placeRow } from './places'
export { wakePerson, wakeWho } from './waking'
export { carryOut, passingBy } from './carry-out'
export {
  HELD_OUT,
  enrolNew,
  enrolPerson,
  letPeopleOut,
  nextStartDue,
  roundsOf,
  takeOut,
} from './entering'
export { arrivalsOf, arrivedBySegment, letInSoon } from './arriving'
export {
  bringInSequence,
  keepSequence,
  keptFile,
  keptSequences,
  mapOfFile,
  setKeptDeleted,
  takeOutSequence,
} from './files'
export { couldComeIn, letPeopleIn, letSegmentIn } from './letting-in'
export { roundsBehind } from './rounds'
export { decideSplit, judgeSplits, outcomesOf } from './splits'
export { beginJudging, judgedSteps, standingOf } from './split-shares'
export { leftBy, openTimes, outcomeOfGroups, repliedTo, wayOf } from './results'
export type { CountedGoal } from './results'
export type { GroupOutcome } from './results'
export { figuresOf, isOneOf, providersMailed, versionsOf, whoProblem } from './which-rounds'
export { comingBy } from './coming'
export { indexDates } from './date-index'
export { forgetCues } from './cues'
export { MOST_COUNTED, waitingToGoOn } from './resuming'
export { drawAudience } from './audience'
export type { Asking } from './audience'
export {
  handOverAgain,
  handOverById,
  handOverKey,
  handOversDue,
  handOverTried,
  keyOf,
  lastHandOvers,
} from './hand-overs'
export { addTelling, tellingsDue, tellingsTold } from './tellings'
export type { DueTelling } from './tellings'
export { nextToldDue } from './told-due'
export { beginMarks, markOf, setMark } from './marks'
export {
  addMailOf,
  addSequence,
  asItRuns,
  changeSequence,
  deleteSequence,
  archiveSequence,
  duplicateSequence,
  endSequence,
  mapOfVersion,
  mapsInside,
  mailingsOfSequence,
  pauseSequence,
  readSequences,
  runningSequences,
  sequenceById,
  startableSequences,
  startSequence,
  startedByJoining,
} from './sequences'
export type { Sequence } from './sequences'
