import { blocksOf } from '../../letters'
import { wordCount } from '../../letters/wording'
import type { Mark, ProofFacts } from '../mark'
import { HOLE, textsOf } from '../texts'

/** Fewer words beside a picture look to filters like a picture that hides them. */
const FEW = 12

/** A letter that is a picture: nothing is left of it where pictures are off. */
export function picturesAndWords({ letter }: ProofFacts): Mark[] {
  const pictures = blocksOf(letter.document).filter(
    (block) => (block.kind === 'picture' || block.kind === 'film') && block.src !== '',
  )
  const words = textsOf(letter)
    .filter(({ blockId }) => blockId !== null)
    .reduce((sum, { text }) => sum + wordCount(text.replaceAll(HOLE, ' ')), 0)
  if (!pictures.length || words >= FEW) return []
  return [
    {
      check: 'pictures-and-words',
      level: 'caution',
      blockId: pictures[0]!.id,
      title: `Pictures, and only ${words} ${words === 1 ? 'word' : 'words'}`,
      detail:
        'With pictures off nearly nothing is left, and filters look twice. Write what it is about.',
    },
  ]
}
