import { readLetterhead } from '~~/core/letters'
import { saveLetterhead } from '~~/database/account'

/** Changes the letterhead; what is odd in it stays as it is by default. */
export default defineEventHandler(async (event) => {
  const letterhead = readLetterhead(await readBody(event))
  saveLetterhead(satchel().db, letterhead)
  return letterhead
})
