import { array, mixed, number, object, string } from 'yup'
import { line } from './input-parts'

/** What is asked of segments, by rules, as text and in SQL. */

const ruleShape = mixed<object>().required('A rule is missing.')

export const segmentQuestionInput = object({
  rule: ruleShape,
  segmentId: number().integer().positive().nullable().default(null),
  offset: number().integer().min(0).default(0),
})

/** No more than are counted in one pass over everybody. */
export const severalRulesInput = object({
  rules: array().of(ruleShape).min(1).max(12, 'At most twelve at a time.').required(),
})

export const ruleTextInput = object({ text: string().max(20_000, 'This is too long.').defined() })

export const whyInput = object({
  rule: ruleShape,
  personId: number().integer().positive().required(),
})

export const segmentInput = object({
  name: line(100).required('Give the segment a name.'),
  rule: ruleShape,
})

export const segmentChangeInput = segmentInput.shape({
  version: number().integer().min(1).required(),
})

const query = string().trim().max(20_000, 'At most 20,000 characters.').required('Write a query.')

export const sqlInput = object({ query })

export const sqlSegmentInput = object({
  name: line(100).required('Give the segment a name.'),
  query,
})
