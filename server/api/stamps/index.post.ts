import { addStamp, readStampContent } from '~~/database/letters'
import { stampInput } from '~~/shared/letter-inputs'

/** Keeps a row of a letter as a stamp. */
export default defineEventHandler(async (event) => {
  const { name, row } = await readInput(event, stampInput)
  const { db, clock } = satchel()
  return { id: addStamp(db, name, stampContentOf(row), clock()) }
})

function stampContentOf(row: unknown) {
  const content = readStampContent(row)
  if (!content) throw createError({ statusCode: 422, message: 'There is nothing in this row.' })
  return content
}
