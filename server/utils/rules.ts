import { readRule, readyRule, type Rule } from '~~/core/segments'
import { readCatalog } from '~~/database/segments'

/** A rule from a request; what is none answers 422. */
export function ruleFrom(json: unknown): Rule {
  const rule = readRule(json)
  if (!rule)
    throw createError({
      statusCode: 422,
      message: 'This is not a rule.',
      data: { fields: { rule: 'This is not a rule.' } },
    })
  return rule
}

/** Two segments of one name could not be told apart where a rule or a mailing names one. */
export const nameTaken = () =>
  fieldFault('name', 'There is a segment of this name already. Choose another.')

/**
 * A rule that may be saved as segment `id` (null: a new one): everything it refers to is there, and
 * it is not part of itself.
 */
export function ruleToSave(json: unknown, id: number | null): Rule {
  const rule = ruleFrom(json)
  const catalog = readCatalog(satchel().db)
  const segments = new Map(catalog.segments)
  if (id !== null) segments.set(id, { name: segments.get(id)?.name ?? '', rule, frozen: false })
  const whole: Rule = id === null ? rule : { kind: 'segment', segmentId: id }
  const { problems } = readyRule(whole, { ...catalog, segments })
  if (problems.length)
    throw createError({
      statusCode: 422,
      message: problems[0]!.message,
      data: { fields: { rule: problems[0]!.message }, problems },
    })
  return rule
}
