import { compileApart } from '~~/cases/apart'
import { cleanDocument, type Letter } from '~~/core/letters'
import { mergeLetter, personContext, type LetterFrame } from '~~/core/letters/rendering'

/** A letter as this account's letters look, for nobody in particular. */
export async function letterSample(
  letter: Letter,
  frame: LetterFrame = letterFrame({ list_id: null }),
) {
  const context = personContext(
    { address: 'reader@letters.example', values: {} },
    { list: frame.listName, sender: frame.senderName, mailing: '' },
  )
  const compiled = await compileApart(withPictures(letter), frame)
  const everything = compiled.rules.map(() => true)
  const { subject, html } = mergeLetter(compiled, context, everything)
  return { subject, html, weight: compiled.weight }
}

/** Where pictures are to come, something stands there to look at. */
function withPictures(letter: Letter): Letter {
  const text = JSON.stringify(letter.document)
  const slot = `"src":"${satchel().url}/picture-slot.svg"`
  const document = cleanDocument(JSON.parse(text.replaceAll('"src":""', slot)))
  return document ? { ...letter, document } : letter
}
