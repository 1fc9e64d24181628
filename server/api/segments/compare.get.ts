import { MOST_COMPARED, readSegments } from '~~/database/segments'

/** Two to six segments against each other: who is in which of them, and in no other. */
export default defineEventHandler(async (event) => {
  const { db, clock } = satchel()
  const ids = [
    ...new Set(
      String(getQuery(event).of ?? '')
        .split(',')
        .map(Number),
    ),
  ]
  const segments = readSegments(db).filter(({ id }) => ids.includes(id))
  if (segments.length < 2 || segments.length > MOST_COMPARED)
    throw createError({
      statusCode: 422,
      message: `Choose two to ${MOST_COMPARED} segments to compare.`,
    })
  const parts = await askLong('compare', { ids: segments.map(({ id }) => id), now: clock() })
  return { segments: segments.map(({ id, name }) => ({ id, name })), parts }
})
