import { compileLetter, mergeLetter, personContext } from '~~/core/letters/rendering'
import { templateLetter } from '~~/core/letters/templates'

/** A template as a letter of this account would look that is made from it. */
export default defineEventHandler(async (event) => {
  const frame = letterFrame({ list_id: null })
  const context = personContext(
    { address: 'reader@letters.example', values: {} },
    { list: frame.listName, sender: frame.senderName, mailing: '' },
  )
  const compiled = await compileLetter(templateLetter(getRouterParam(event, 'key')), frame)
  const { subject, html } = mergeLetter(compiled, context)
  return { subject, html }
})
