import {
  truthOf,
  withoutHidden,
  type Letter,
  type Rendition,
  type WeighedRendition,
} from '../../core/letters'
import {
  mergeLetter,
  personContext,
  type CompiledLetter,
  type LetterFrame,
} from '../../core/letters/rendering'
import { compileApart } from '../apart'

/**
 * What a letter weighs, bytes of HTML: as a whole (of its versions the heaviest), how much of that is hidden on one
 * kind of device, and each version that goes out. Rejects where it can't be made.
 */
export async function weigh(letter: Letter, frame: LetterFrame, renditions: Rendition[] | null) {
  const compiled = await compileApart(letter, frame)
  const everywhere = withoutHidden(letter.document)
  const bare =
    everywhere === letter.document
      ? compiled
      : await compileApart({ ...letter, document: everywhere }, frame)
  const weighed =
    renditions?.map((one): WeighedRendition => ({
      ...one,
      weight: weightFor(compiled, one.truths[0]!),
    })) ?? null
  const whole = weighed?.length ? Math.max(...weighed.map((one) => one.weight)) : compiled.weight
  return { renditions: weighed, weight: { whole, hidden: compiled.weight - bare.weight } }
}

/** What those get for whom the letter's rules are so. */
function weightFor(letter: CompiledLetter, truth: number): number {
  const nobody = personContext({ address: '', values: {} }, { list: '', sender: '', mailing: '' })
  return Buffer.byteLength(mergeLetter(letter, nobody, truthOf(truth, letter.rules.length)).html)
}
