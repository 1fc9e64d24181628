import { readLetterhead } from '~~/core/letters'
import { changeLetterhead, letterheads } from '~~/database/letters'
import { letterheadInput } from '~~/shared/letter-inputs'

/** Changes a letterhead over the version its editor saw; the letters in it that have not gone out follow. */
export default defineEventHandler(async (event) => {
  const { name, look, version } = await readInput(event, letterheadInput)
  const kept = readLetterhead(look)
  const { db } = satchel()
  const id = idOf(event)
  const before = letterheads(db).find((one) => one.id === id)
  if (before && before.version !== version)
    throw overtaken('Somebody else changed this letterhead meanwhile. Look at theirs first.')
  if (!changeLetterhead(db, id, { name, look: kept }))
    throw notFound('This letterhead is not there any more.')
  return { look: kept, version: letterheads(db).find((one) => one.id === id)!.version }
})
