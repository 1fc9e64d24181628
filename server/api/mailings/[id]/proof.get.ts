import { withoutHidden } from '~~/core/letters'
import { compileLetter } from '~~/core/letters/rendering'
import { wholeLetterOf } from '~~/database/letterheads'
import { proofMailing } from '~~/database/proof'

/** The marks of a mailing as it stands now, with what its letter weighs. */
export default defineEventHandler(async (event) => {
  const { db, clock } = satchel()
  const mailing = mailingOf(event)
  const letter = wholeLetterOf(db, mailing.letter_id)
  const frame = letterFrame(mailing)
  const everywhere = withoutHidden(letter.document)
  const whole = (await compileLetter(letter, frame)).weight
  const hidden =
    everywhere === letter.document
      ? 0
      : whole - (await compileLetter({ ...letter, document: everywhere }, frame)).weight
  return { marks: proofMailing(db, mailing, clock(), { whole, hidden }) }
})
