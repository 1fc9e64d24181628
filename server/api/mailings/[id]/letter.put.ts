import { cleanDocument, fillInRefusal, fillInsOf } from '~~/core/letters'
import { saveLetter } from '~~/database/letters'
import { letterInput } from '~~/shared/letter-inputs'

/** Saves the letter over the version its author saw; 409 where somebody else was faster. */
export default defineEventHandler(async (event) => {
  const input = await readInput(event, letterInput)
  const { db, clock } = satchel()
  const mailing = unsentMailingOf(event)
  const document = cleanDocument(input.document)
  if (!document)
    throw createError({
      statusCode: 422,
      message: 'This is not a letter.',
      data: { fields: { document: 'Not a letter.' } },
    })
  const oneLine = (text: string) => text.replace(/[\p{Cc}\u2028\u2029]+/gu, ' ').normalize('NFC')
  const letter = {
    subject: oneLine(input.subject),
    previewText: oneLine(input.previewText),
    document,
  }
  for (const { fillIn, blockId } of fillInsOf(letter)) {
    const problem = fillInRefusal(fillIn.expression)
    if (problem)
      throw createError({
        statusCode: 422,
        message: `The fill-in “${fillIn.expression.slice(0, 60)}” can’t be kept. ${problem}`,
        data: { fields: { [blockId === null ? 'subject' : 'document']: problem } },
      })
  }
  const version = saveLetter(db, mailing.letter_id, letter, input.version, author(event), clock())
  if (version === null)
    throw overtaken(
      'Somebody else has changed this letter meanwhile. Load it again to see their words.',
    )
  return { version }
})
