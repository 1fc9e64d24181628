import { frameOf, letterSample } from '~~/cases/letters'
import { compareLetters, type Letter } from '~~/core/letters'
import { letterVersion, letterOf } from '~~/database/letters'

/** A letter as it was, beside how it is now: both as HTML, and what is different now. */
export default defineEventHandler(async (event) => {
  const { db, url } = satchel()
  const mailing = mailingOf(event)
  const then = letterVersion(db, mailing.letter_id, idOf(event, 'version'))
  if (!then) throw notFound('This version is not kept any more.')
  const now = letterOf(db, mailing.letter_id)
  const frame = frameOf(db, mailing, url)
  const drawn = async (letter: Letter) => (await madeOrRefused(letterSample(letter, frame))).html
  return {
    changes: compareLetters(then, now),
    then: { subject: then.subject, html: await drawn(then) },
    now: { subject: now.subject, html: await drawn(now) },
  }
})
