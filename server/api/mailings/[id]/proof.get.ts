import { compileApart } from '~~/cases/apart'
import { truthOf, withoutHidden, type Rendition } from '~~/core/letters'
import { mergeLetter, personContext, type CompiledLetter } from '~~/core/letters/rendering'
import { wholeLetterOf } from '~~/database/letters'
import { goingOut, proofMailing } from '~~/database/mailings'

/** A version of a letter that goes out, with the bytes of its HTML before its fill-ins are filled. */
export type WeighedRendition = Rendition & { weight: number }

/** The marks of a mailing as it stands now, and what goes out: each version with what it weighs. */
export default defineEventHandler(async (event) => {
  const { db, clock } = satchel()
  const mailing = mailingOf(event)
  const letter = wholeLetterOf(db, mailing.letter_id)
  const frame = letterFrame(mailing)
  const compiled = await compileApart(letter, frame)
  const everywhere = withoutHidden(letter.document)
  const bare =
    everywhere === letter.document
      ? compiled
      : await compileApart({ ...letter, document: everywhere }, frame)
  const renditions = goingOut(db, mailing, letter.document, clock())
  const weighed =
    renditions?.map((one): WeighedRendition => ({
      ...one,
      weight: weightFor(compiled, one.truths[0]!),
    })) ?? null
  const whole = weighed?.length ? Math.max(...weighed.map((one) => one.weight)) : compiled.weight
  const weight = { whole, hidden: compiled.weight - bare.weight }
  // What takes longer is left out where it takes too long, rather than holding up what is known at once.
  const more =
    mailing.started_at === null
      ? await askLong('proof', { mailingId: mailing.id, now: clock() }).catch(() => null)
      : null
  const marks = proofMailing(db, mailing, clock(), { renditions, weight, ...more })
  return { marks, renditions: weighed, weight: whole }
})

/** What those get for whom the letter's rules are so. */
function weightFor(letter: CompiledLetter, truth: number): number {
  const nobody = personContext({ address: '', values: {} }, { list: '', sender: '', mailing: '' })
  return Buffer.byteLength(mergeLetter(letter, nobody, truthOf(truth, letter.rules.length)).html)
}
