import { readLetterhead, withFrameStamps } from '~~/core/letters'
import { stampContents } from '~~/database/letters'

/** A letter with a bit of everything in a letterhead that is not saved yet. */
export default defineEventHandler(async (event) => {
  const letterhead = readLetterhead(await readBody(event))
  const letter = sampleLetter()
  const document = withFrameStamps(letter.document, letterhead, stampContents(satchel().db))
  return letterSample({ ...letter, document }, { ...letterFrame({ list_id: null }), letterhead })
})
