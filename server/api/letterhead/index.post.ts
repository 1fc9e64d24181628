import { readLetterhead } from '~~/core/letters'
import { addLetterhead } from '~~/database/letters'
import { letterheadInput } from '~~/shared/letter-inputs'

/** Adds a letterhead besides the account's own. */
export default defineEventHandler(async (event) => {
  const { name, look } = await readInput(event, letterheadInput)
  const { db, clock } = satchel()
  return { id: addLetterhead(db, name, readLetterhead(look), clock()) }
})
