/**
 * Sequences: mail that sends itself along a map of steps. The map is data; `advance` is the whole of what happens to
 * somebody inside, without doing any of it.
 */
export { emptyMap, insertStep, lineOf, mailingsOfMap, readMap, removeStep } from './map'
export type { MailStep, SequenceMap, Start, Step, WaitStep } from './map'
export { advance, enter, mailAhead } from './advance'
export type { Advanced, Effect, Ending, InsideFacts, Place } from './advance'
export { mapProblems } from './problems'
