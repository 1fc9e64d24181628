/** Sequences, and how people go through them. */
export {
  advanceDue,
  eachMailAhead,
  enrolNew,
  enrolPerson,
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
  startableSequences,
  startSequence,
  startedByJoining,
} from './sequences'
export type { Sequence } from './sequences'
