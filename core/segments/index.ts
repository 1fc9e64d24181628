/**
 * Segments: a rule that says who is in. One rule, two evaluators that must agree: to SQL for
 * everybody, to a predicate for one person.
 */
export type { Rule, Group, Condition } from './rule'
export { readRule } from './rule'
export { ruleToSql } from './to-sql'
export type { SegmentTables } from './to-sql'
export { ruleToPredicate } from './to-predicate'
export type { PersonFacts } from './to-predicate'
export { describeRule } from './describe'
