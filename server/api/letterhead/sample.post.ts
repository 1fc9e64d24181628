import { frameOf, letterSample } from '~~/cases/letters'
import { readLetterhead, sampleLetter, withFrameStamps } from '~~/core/letters'
import { templateLetter } from '~~/core/letters/templates'
import { stampContents } from '~~/database/letters'

/** Letters in a letterhead that is not saved yet: one with a bit of everything, and two of the templates. */
export default defineEventHandler(async (event) => {
  const letterhead = readLetterhead(await readBody(event))
  const { db, url } = satchel()
  const frame = { ...frameOf(db, { list_id: null }, url), letterhead }
  const stamps = stampContents(db)
  const made = [sampleLetter(), templateLetter('sale'), templateLetter('welcome')].map((letter) => {
    const document = withFrameStamps(letter.document, letterhead, stamps)
    return letterSample({ ...letter, document }, frame)
  })
  const letters = await madeOrRefused(Promise.all(made))
  return { letters: letters.map(({ html }) => html) }
})
