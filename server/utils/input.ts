import type { H3Event } from 'h3'
import { ValidationError, type InferType, type ObjectSchema, type AnyObject } from 'yup'
import { jsonProblem } from '~~/core/json'

/** The body of a request, as its schema says. A bad one answers 422 with each field and its reason. */
export async function readInput<T extends ObjectSchema<AnyObject>>(
  event: H3Event,
  schema: T,
): Promise<InferType<T>> {
  let body: unknown
  try {
    body = await readBody(event)
  } catch {
    throw createError({ statusCode: 422, message: 'The request is not JSON.' })
  }
  const odd = jsonProblem(body)
  if (odd) throw createError({ statusCode: 422, message: odd.message })
  try {
    return (await schema.validate(body ?? {}, {
      abortEarly: false,
      stripUnknown: true,
    })) as InferType<T>
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error
    const problems = error.inner.length ? error.inner : [error]
    const fields = Object.fromEntries(
      problems.map((problem) => [problem.path ?? '', problem.errors[0]!]),
    )
    throw createError({ statusCode: 422, message: Object.values(fields)[0]!, data: { fields } })
  }
}

/** A number in the path; anything else is not found. */
export function idOf(event: H3Event, name = 'id'): number {
  const id = Number(getRouterParam(event, name))
  if (!Number.isSafeInteger(id) || id < 1) throw notFound('There is nothing here.')
  return id
}

export function notFound(message: string) {
  return createError({ statusCode: 404, message })
}

/** Somebody else was faster: what was changed or confirmed is not what there is now (RFC 9110, 15.5.13). */
export function overtaken(message: string) {
  return createError({ statusCode: 412, message })
}

/** Something that can't be done as things stand, and why. */
export function refused(message: string) {
  return createError({ statusCode: 409, message })
}
