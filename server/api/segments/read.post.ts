import { parseRule } from '~~/core/segments'
import { readCatalog } from '~~/database/segments'
import { ruleTextInput } from '~~/shared/segment-inputs'

/** Reads the text of a rule: the rule, or what is wrong and where. */
export default defineEventHandler(async (event) => {
  const { text } = await readInput(event, ruleTextInput)
  return parseRule(text, readCatalog(satchel().db))
})
