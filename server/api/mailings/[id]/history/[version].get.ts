import { compileApart } from '~~/cases/apart'
import { compareLetters, type Letter } from '~~/core/letters'
import { mergeLetter, personContext } from '~~/core/letters/rendering'
import { letterVersion, letterOf } from '~~/database/letters'

/** A letter as it was, beside how it is now: both as HTML, and what is different now. */
export default defineEventHandler(async (event) => {
  const { db } = satchel()
  const mailing = mailingOf(event)
  const then = letterVersion(db, mailing.letter_id, idOf(event, 'version'))
  if (!then) throw notFound('This version is not kept any more.')
  const now = letterOf(db, mailing.letter_id)
  const frame = letterFrame(mailing)
  return {
    changes: compareLetters(then, now),
    then: { subject: then.subject, html: await drawn(then) },
    now: { subject: now.subject, html: await drawn(now) },
  }

  async function drawn(letter: Letter): Promise<string> {
    const context = personContext(
      { address: 'reader@letters.example', values: {} },
      { list: frame.listName, sender: frame.senderName, mailing: mailing.name },
    )
    const compiled = await compileApart(letter, frame)
    return mergeLetter(
      compiled,
      context,
      compiled.rules.map(() => true),
    ).html
  }
})
