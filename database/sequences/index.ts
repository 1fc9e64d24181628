/** Sequences, and how people go through them. */
export {
  advanceDue,
  eachMailAhead,
  nextStepDue,
  peopleInside,
  standingAt,
  trafficOf,
} from './enrolments'
export { placeRow } from './places'
export { wakePerson, wakeWho } from './waking'
export { carryOut, countPassed } from './carry-out'
export { HELD_OUT, enrolNew, enrolPerson, nextStartDue, roundsOf, takeOut } from './entering'
export { arrivalsOf, arrivedBySegment, couldComeIn, letInSoon, letSegmentIn } from './arriving'
export { decideSplit, judgeSplits, outcomesOf } from './splits'
export { beginJudging, judgedSplits, standingOf } from './split-shares'
export { leftBy, openTimes, outcomeOfGroups, wayOf } from './results'
export type { GroupOutcome } from './results'
export { comingBy } from './coming'
export { drawAudience } from './audience'
export type { Asking } from './audience'
export { beginMarks, markOf, setMark } from './marks'
export {
  addMailOf,
  addSequence,
  changeSequence,
  deleteSequence,
  duplicateSequence,
  endSequence,
  mapOfVersion,
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
