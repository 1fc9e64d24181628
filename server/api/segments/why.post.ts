import { DateTime } from 'luxon'
import { explainRule } from '~~/core/segments'
import { factsOf, askedAt, readCatalog } from '~~/database/segments'
import { whyInput } from '~~/shared/segment-inputs'

/** Why one person is in a segment, or is not: each condition with its verdict and the fact behind it. */
export default defineEventHandler(async (event) => {
  const { rule, personId } = await readInput(event, whyInput)
  const { db, clock } = satchel()
  const person = factsOf(db, personId)
  if (!person) throw notFound('This person is not on file.')
  const asked = askedAt(db, clock())
  const day = (at: number) => DateTime.fromMillis(at, { zone: asked.zone }).toFormat('d LLL yyyy')
  return explainRule(ruleFrom(rule), person, readCatalog(db), asked, day)
})
