import { addMailOf } from '~~/database/sequences'
import { sequenceMailInput } from '~~/shared/mailing-inputs'

/** A mail for a new step, with a letter to begin with. */
export default defineEventHandler(async (event) => {
  const { name } = await readInput(event, sequenceMailInput)
  const { db, clock } = satchel()
  return { id: addMailOf(db, sequenceOf(event), name, clock()) }
})
