import { readLetterhead } from '~~/core/letters'
import { changeLetterhead } from '~~/database/letterheads'
import { letterheadInput } from '~~/shared/letter-inputs'

/** Changes a letterhead; the letters in it that have not gone out follow. */
export default defineEventHandler(async (event) => {
  const { name, look } = await readInput(event, letterheadInput)
  const kept = readLetterhead(look)
  if (!changeLetterhead(satchel().db, idOf(event), { name, look: kept }))
    throw notFound('This letterhead is not there any more.')
  return kept
})
