import { frameOf, letterSample } from '~~/cases/letters'
import { readLetterhead, sampleLetter, withFrameStamps } from '~~/core/letters'
import { stampContents } from '~~/database/letters'

/** A letter with a bit of everything in a letterhead that is not saved yet. */
export default defineEventHandler(async (event) => {
  const letterhead = readLetterhead(await readBody(event))
  const { db, url } = satchel()
  const letter = sampleLetter()
  const document = withFrameStamps(letter.document, letterhead, stampContents(db))
  const frame = { ...frameOf(db, { list_id: null }, url), letterhead }
  return madeOrRefused(letterSample({ ...letter, document }, frame))
})
