import { segmentQuestionInput } from '~~/shared/segment-inputs'

/** More of a rule's people, behind the first page. */
export default defineEventHandler(async (event) => {
  const { rule, offset } = await readInput(event, segmentQuestionInput)
  return askLong('members', { rule: ruleFrom(rule), now: satchel().clock(), offset })
})
