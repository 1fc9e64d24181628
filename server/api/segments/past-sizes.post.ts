import { segmentQuestionInput } from '~~/shared/segment-inputs'

/** What the size of a rule was over the last weeks, while it is being edited. */
export default defineEventHandler(async (event) => {
  const input = await readInput(event, segmentQuestionInput)
  const rule = ruleFrom(input.rule)
  const { user } = me(event)
  const asker = `past of ${user.id}`
  return askLong('pastSizes', { rule, now: satchel().clock() }, asker)
})
