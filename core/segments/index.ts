/**
 * Segments: a rule that says who is in. One rule, two evaluators that must agree (to SQL for everybody,
 * to a predicate for one person), an explanation for one person, and a text that reads as English.
 * `readyRule` finds what a rule refers to; the evaluators take what it made.
 */
export {
  asksWhoWasSent,
  readRule,
  conditionsOf,
  mapConditions,
  isGroup,
  mailActs,
  sequenceStandings,
} from './rule'
export type { Rule, Group, Condition, MailAct, SequenceStanding, Times, WhichMail } from './rule'
export { familyOf, readTexts, showTexts } from './comparison'
export type {
  Comparison,
  Family,
  NumberComparison,
  TextComparison,
  TimeComparison,
} from './comparison'
export { MOST_DAYS } from './comparison'
export { families, readyRule, segmentsWithin } from './ready'
export type { Catalog, ReadyGroup, ReadyRule, RuleProblem, SavedSegment } from './ready'
export { momentsOf } from './moments'
export type { Asked } from './moments'
export { ruleToSql } from './to-sql'
export { ruleToPredicate } from './to-predicate'
export type { Predicate } from './to-predicate'
export type {
  PersonFacts,
  MailFact,
  OrderFact,
  SequenceFact,
  SubscriptionFact,
} from './person-facts'
export { factsAsOf } from './as-of'
export { causeAsker } from './cause'
export { estimateSizes } from './estimate'
export type { Estimate } from './estimate'
export { explainRule } from './explain'
export type { Explanation } from './explain'
export { writeRule, writeCondition } from './write'
export { parseRule } from './parse'
export type { ParsedRule } from './parse'
export { tidyRule } from './tidy'
export { fold } from './fold'
export {
  groupPart,
  insertPart,
  linesOf,
  movePart,
  partAt,
  removePart,
  replacePart,
  ungroupPart,
} from './changes'
export type { Path } from './changes'
export { askables, findAskables } from './askables'
export type { Askable, Vocabulary } from './askables'
export { startsFor } from './starts'
export type { Start } from './starts'
export type { PastSizes } from './estimate'
export type { SegmentAnswer } from './answer'
