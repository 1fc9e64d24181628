import { frameOf } from '~~/cases/letters'
import { goingOut, proofMailing, weigh } from '~~/cases/mailings'
import { wholeLetterOf } from '~~/database/letters'

/** The marks of a mailing as it stands now, and what goes out: each version with what it weighs. */
export default defineEventHandler(async (event) => {
  const { db, clock, url } = satchel()
  const mailing = mailingOf(event)
  const letter = wholeLetterOf(db, mailing.letter_id)
  const { renditions, weight } = await weigh(
    letter,
    frameOf(db, mailing, url),
    goingOut(db, mailing, letter.document, clock()),
  )
  // What takes longer is left out where it takes too long, rather than holding up what is known at once.
  const more =
    mailing.started_at === null
      ? await askLong('proof', { mailingId: mailing.id, now: clock() }).catch(() => null)
      : null
  const marks = proofMailing(db, mailing, clock(), { renditions, weight, ...more })
  return { marks, renditions, weight: weight.whole }
})
