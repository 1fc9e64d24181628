import { keepSequence } from '~~/database/sequences'
import { keptSequenceInput } from '~~/shared/mailing-inputs'

/** Keeps the sequence as it is drawn, as a template for others. */
export default defineEventHandler(async (event) => {
  const input = await readInput(event, keptSequenceInput)
  const { db, clock } = satchel()
  return { id: keepSequence(db, sequenceOf(event), input, author(event), clock()) }
})
