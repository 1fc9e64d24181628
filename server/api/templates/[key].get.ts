import { cleanDocument, type Letter } from '~~/core/letters'
import { compileLetter, mergeLetter, personContext } from '~~/core/letters/rendering'
import { templateLetter } from '~~/core/letters/templates'

const SLOT = `${satchel().url}/picture-slot.svg`

/** A template as a letter of this account would look that is made from it. */
export default defineEventHandler(async (event) => {
  const frame = letterFrame({ list_id: null })
  const context = personContext(
    { address: 'reader@letters.example', values: {} },
    { list: frame.listName, sender: frame.senderName, mailing: '' },
  )
  const letter = withPictures(templateLetter(getRouterParam(event, 'key')))
  const compiled = await compileLetter(letter, frame)
  const { subject, html } = mergeLetter(compiled, context)
  return { subject, html }
})

/** Where pictures are to come, something stands there to look at. */
function withPictures(letter: Letter): Letter {
  const text = JSON.stringify(letter.document)
  const document = cleanDocument(JSON.parse(text.replaceAll('"src":""', `"src":"${SLOT}"`)))
  return document ? { ...letter, document } : letter
}
