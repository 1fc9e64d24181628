import { cleanDocument, type Letter } from '../../core/letters'
import { mergeLetter, personContext, type LetterFrame } from '../../core/letters/rendering'
import { compileApart } from '../apart'

/** A letter in a frame, for nobody in particular. Rejects where it can't be made. */
export async function letterSample(letter: Letter, frame: LetterFrame) {
  const context = personContext(
    { address: 'reader@letters.example', values: {} },
    { list: frame.listName, sender: frame.senderName, mailing: '' },
  )
  const compiled = await compileApart(withPictures(letter, frame.url), frame)
  const everything = compiled.rules.map(() => true)
  const { subject, html } = mergeLetter(compiled, context, everything)
  return { subject, html, weight: compiled.weight }
}

/** Where pictures are to come, something stands there to look at. */
function withPictures(letter: Letter, url: string): Letter {
  const text = JSON.stringify(letter.document)
  const slot = `"src":"${url}/picture-slot.svg"`
  const document = cleanDocument(JSON.parse(text.replaceAll('"src":""', slot)))
  return document ? { ...letter, document } : letter
}
