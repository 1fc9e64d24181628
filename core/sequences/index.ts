/**
 * Sequences: mail that sends itself along a map of steps. The map is data; `advance` is the whole of what happens to
 * somebody inside, without doing any of it.
 */
export {
  changeStep,
  emptyMap,
  goesRound,
  insertStep,
  joinAt,
  joinsFor,
  mailingsOfMap,
  LONGEST_NOTE,
  MOST_HELD_OUT,
  reachableFrom,
  readMap,
  removeStep,
  removeWay,
  sideWay,
  stepsInOrder,
} from './map'
export type { SequenceMap, Spot, Start } from './map'
export { readSequenceFile, sequenceFile, withMailings } from './file'
export type { NamedLetter, ReadFile } from './file'
export { freshStarts, JOINED, mailedWays, mayComeIn, never } from './starts'
export { readStarting, startKinds } from './starts'
export type { Again, DateStart, EarlierRound, MailedStart, Starting } from './starts'
export { alreadyThere } from './already'
export { isDayRule, nextMoment } from './moments'
export type { MomentStart } from './moments'
export { drawnAt, isJudged, kindOfStep, mailingsOfStep, stepKinds, waysOf } from './steps'
export type { JudgedStep, NewStep, Step } from './steps'
export type { ArrivalFacts, Effect, HandHow, HandOver, InsideFacts } from './steps/kind'
export { MOST_WAIT_DAYS, USUAL_WAIT_DAYS, withoutVersion } from './steps/mail'
export type { MailStep, WhenFull } from './steps/mail'
export { MOST_OF_DAYS_OFF_FILE, readDaysOff } from './days-off'
export { BACK, isWaitingFor, MOST_TIMES_BACK, officeHours, openFrom } from './steps/wait'
export type { OpenHours, Until, WaitStep, WayBack } from './steps/wait'
export type { ForkStep } from './steps/fork'
export { judgedBy, judgedHow, lotFor, MOST_DRAWN, restOf, wayName, WHOLE } from './steps/by-lot'
export type { Drawn, Judged } from './steps/by-lot'
export type { SplitStep } from './steps/split'
export { allTo, FEWEST_A_WAY, judge, readShares } from './judging'
export { everyRound, isEveryRound, LONGEST_WHO, readWhich, writeWhich } from './which'
export type { Which } from './which'
export { actNames, handable, OF_EVENT } from './steps/do'
export { handHows } from './steps/kind'
export type { Act, DoStep } from './steps/do'
export { branchAt, moveBranch, putBranch, renamedBranch, type Branch } from './branches'
export { MOST_GOAL_DAYS, type GoalStep } from './steps/goal'
export { deedOf, happenings, readHappening } from './happening'
export type { Happening } from './happening'
export { advance, enter, mailAhead } from './advance'
export type { Advanced, Ending, Place } from './advance'
export { askedByWaits, asksOf, happeningsOf, rulesOf, withRules } from './rules'
export { readRoundsAsked, ROUNDS_SHOWN, writeRoundsAsked } from './rounds'
export type { Round, RoundsAsked } from './rounds'
export { mapCautions } from './cautions'
export { mapProblems } from './problems'
export { repaired, repairNames } from './repairs'
export type { Repair } from './repairs'
export type { MapMark } from './mark'
export type { CloseMail, GoalResults, MapFigures, SequenceResults, SplitResults } from './results'
export { isHeldOut, lotOf } from './lot'
export { LONGEST_SPREAD, turnOf } from './resuming'
export type { Resuming } from './resuming'
export { layOut } from './layout'
export type { Laid, LaidEdge } from './layout'
