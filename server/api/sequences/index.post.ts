import { readLists } from '~~/database/people'
import { addSequence } from '~~/database/sequences'
import { newSequenceInput } from '~~/shared/mailing-inputs'

/** A new sequence: a draft with nothing in it, for the first list. */
export default defineEventHandler(async (event) => {
  const { name } = await readInput(event, newSequenceInput)
  const { db, clock } = satchel()
  return { id: addSequence(db, name, readLists(db)[0]?.id ?? null, clock()) }
})
