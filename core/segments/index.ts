/**
 * Segments: a rule that says who is in. One rule, two evaluators that must agree (to SQL for everybody,
 * to a predicate for one person), an explanation for one person, and a text that reads as English.
 * `readyRule` finds what a rule refers to; the evaluators take what it made.
 */
export { readRule, conditionsOf, mapConditions, isGroup } from './rule'
export type { Rule, Group } from './rule'
export { kindOf } from './kinds'
export type { Condition, ConditionOf } from './kinds'
export { carriedSql, readCarried } from './kinds/event'
export type { Carried } from './kinds/event'
export { families } from './kinds/field'
export { languages } from '../people/language'
export { asksWhoWasSent, mailActs } from './kinds/mail'
export type { MailAct } from './kinds/mail'
export type { WhichMail } from './kinds/which-mail'
export { rankedSql } from './kinds/rank'
export { readingOn } from './kinds/reads'
export { sequenceStandings } from './kinds/sequence'
export { suppressedFor } from './kinds/suppressed'
export type { SequenceStanding } from './kinds/sequence'
export { rankedBy, rankedPlaces } from './values/ranking'
export type { RankedBy, Ranking } from './values/ranking'
export type { Times } from './values/times'
export { writeComparison } from './values/write'
export { MOST_DAYS, familyOf, readTexts, showTexts } from './values/comparison'
export type {
  Comparison,
  Family,
  NumberComparison,
  TextComparison,
  TimeComparison,
} from './values/comparison'
export type { Vocabulary } from './names'
export { readyRule, segmentsWithin } from './ready'
export type { Catalog, ReadyGroup, ReadyRule, RuleProblem, SavedSegment } from './ready'
export { momentsOf } from './values/moments'
export type { Asked } from './values/moments'
export { ruleToSql } from './to-sql'
export { ruleToPredicate } from './to-predicate'
export type { Predicate } from './kinds/kind'
export type {
  PersonFacts,
  SequenceFact,
  MailFact,
  OrderFact,
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
export { fold } from './values/fold'
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
export type { Askable } from './askables'
export { startsFor, STARTS_AT_A_TIME } from './starts'
export type { Start } from './starts'
export type { PastSizes } from './estimate'
export type { SegmentAnswer } from './answer'
