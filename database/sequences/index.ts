/** Sequences, and how people go through them. */
export {
  advanceDue,
  eachMailAhead,
  enrolNew,
  nextStepDue,
  peopleInside,
  standingAt,
} from './enrolments'
export {
  addMailOf,
  addSequence,
  changeSequence,
  deleteSequence,
  endSequence,
  mailingsOfSequence,
  pauseSequence,
  readSequences,
  runningSequences,
  sequenceById,
  startSequence,
  startedByJoining,
} from './sequences'
export type { Sequence } from './sequences'
