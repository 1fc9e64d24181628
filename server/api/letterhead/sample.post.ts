import { readLetterhead } from '~~/core/letters'
import { compileLetter, mergeLetter, personContext } from '~~/core/letters/rendering'

/** A letter with a bit of everything in a letterhead that is not saved yet. */
export default defineEventHandler(async (event) => {
  const letterhead = readLetterhead(await readBody(event))
  const frame = { ...letterFrame({ list_id: null }), letterhead }
  const context = personContext(
    { address: 'reader@letters.example', values: {} },
    { list: frame.listName, sender: frame.senderName, mailing: 'Sample' },
  )
  const { html, weight } = await compileLetter(sampleLetter(), frame).then((compiled) => ({
    ...mergeLetter(compiled, context),
    weight: compiled.weight,
  }))
  return { html, weight }
})
