import { blocksOf } from '../../letters'
import type { Mark, ProofFacts } from '../mark'

/** Many readers have pictures off, and some can't see them: each needs words. */
export function alternativeText({ letter }: ProofFacts): Mark[] {
  return blocksOf(letter.document).flatMap((block): Mark[] => {
    const silent =
      (block.kind === 'picture' || block.kind === 'film') &&
      block.src !== '' &&
      block.alt.trim() === ''
    if (!silent) return []
    return [
      {
        check: 'alternative-text',
        level: 'caution',
        blockId: block.id,
        title: 'A picture without words',
        detail: 'Say what one sees on it, for those who have pictures off or can’t see them.',
      },
    ]
  })
}
