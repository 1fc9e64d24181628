import type { H3Event } from 'h3'
import { DateTime } from 'luxon'
import { ValidationError, type AnyObject, type ObjectSchema } from 'yup'
import { answerBefore, EntryFault, keepAnswer, takeBatch, useApiToken } from '~~/database/imports'
import { BATCH } from '~~/shared/api-inputs'
import { jsonProblem } from '~~/core/json'

/**
 * One request of the inbound API: a token, a batch of entries, each checked and taken by itself, and an
 * answer that says what became of each. With an `Idempotency-Key` the same request is answered again as
 * before and taken once.
 */
export async function takeApiBatch<T>(
  event: H3Event,
  schema: ObjectSchema<AnyObject>,
  take: (entry: T) => 'added' | 'changed' | 'unchanged',
) {
  const { db, clock } = satchel()
  const token = /^Bearer (\S{1,200})$/.exec(getHeader(event, 'authorization') ?? '')?.[1]
  const tokenId = token ? useApiToken(db, token, clock()) : null
  if (tokenId === null)
    throw createError({ statusCode: 401, message: 'A token is needed: Authorization: Bearer …' })
  const body = (await readRawBody(event, 'utf8')) ?? ''
  const key = getHeader(event, 'idempotency-key')?.slice(0, 200)
  const before = key ? answerBefore(db, tokenId, key, body) : null
  if (before === 'spent')
    throw createError({
      statusCode: 422,
      message: 'This Idempotency-Key was used with another body.',
    })
  if (before) return answered(before.status, before.answer)
  const entries = entriesOf(body)
  const results = takeBatch(db, entries, (entry) => take(checked(schema, entry) as T))
  const count = (status: string) => results.filter((result) => result.status === status).length
  const answer = JSON.stringify({
    taken: results.length - count('refused'),
    refused: count('refused'),
    results,
  })
  const status = count('refused') === results.length ? 422 : 200
  if (key) keepAnswer(db, tokenId, key, body, status, answer, clock())
  return answered(status, answer)

  function answered(statusCode: number, json: string) {
    setResponseStatus(event, statusCode)
    setResponseHeader(event, 'Content-Type', 'application/json')
    return json
  }
}

function entriesOf(body: string): unknown[] {
  const fault = (path: string, message: string) =>
    createError({ statusCode: 422, message, data: { path } })
  let json: unknown
  try {
    json = JSON.parse(body)
  } catch {
    throw fault('', 'The body is not JSON.')
  }
  const entries = Array.isArray(json) ? json : (json as { entries?: unknown } | null)?.entries
  if (!Array.isArray(entries)) throw fault('entries', 'A list of entries is needed.')
  if (entries.length === 0) throw fault('entries', 'There is no entry.')
  if (entries.length > BATCH) throw fault('entries', `At most ${BATCH} entries at once.`)
  return entries as unknown[]
}

function checked(schema: ObjectSchema<AnyObject>, entry: unknown): unknown {
  if (typeof entry !== 'object' || entry === null || Array.isArray(entry))
    throw new EntryFault('', 'An entry is an object.')
  const odd = jsonProblem(entry)
  if (odd) throw new EntryFault(odd.path, odd.message)
  try {
    return schema.validateSync(entry, { abortEarly: true, stripUnknown: true })
  } catch (error) {
    if (error instanceof ValidationError) throw new EntryFault(error.path ?? '', error.errors[0]!)
    throw error
  }
}

/** When something happened: as given (in UTC where it says no zone), but never later than now. */
export function momentOf(at: string | undefined, now: number): number {
  return at === undefined ? now : Math.min(DateTime.fromISO(at, { zone: 'utc' }).toMillis(), now)
}
