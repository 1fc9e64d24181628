import { readyRule, writeRule } from '~~/core/segments'
import { readCatalog } from '~~/database/segments'
import { segmentQuestionInput } from '~~/shared/segment-inputs'

/** A rule as it is being edited: how many each line keeps, who they are, what they share with other segments. */
export default defineEventHandler(async (event) => {
  const input = await readInput(event, segmentQuestionInput)
  const rule = ruleFrom(input.rule)
  const { db, clock } = satchel()
  const catalog = readCatalog(db)
  const { user } = me(event)
  const asker = `segment of ${user.id}`
  const answer = await askLong('segment', { rule, now: clock(), segmentId: input.segmentId }, asker)
  return { ...answer, text: writeRule(rule, catalog), problems: readyRule(rule, catalog).problems }
})
