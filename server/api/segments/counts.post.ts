import { severalRulesInput } from '~~/shared/segment-inputs'

/** How many people each of some rules keeps now. */
export default defineEventHandler(async (event) => {
  const { rules } = await readInput(event, severalRulesInput)
  const { clock } = satchel()
  return askLong('sizes', { rules: rules.map((rule) => ruleFrom(rule)), now: clock() })
})
