import { blocksOf } from '../../letters'
import type { Mark, ProofFacts } from '../mark'

/** Blocks of picked products need products to recommend. */
export function picks({ letter, offered }: ProofFacts): Mark[] {
  return blocksOf(letter.document).flatMap((block): Mark[] => {
    if (block.kind !== 'picks') return []
    const many = offered.get(block.id) ?? 0
    if (many >= block.many + 3) return []
    const base = { check: 'picks', blockId: block.id }
    if (many < block.many)
      return [
        {
          ...base,
          level: 'blocker',
          title: many === 0 ? 'No product to recommend' : `Only ${many} to recommend`,
          detail:
            'A product needs an address and a picture, and must fit the category, price and stock that are asked for.',
        },
      ]
    return [
      {
        ...base,
        level: 'note',
        title: `${many} products to recommend`,
        detail: 'Who has bought some of them may get fewer. Ask for less, or allow more.',
      },
    ]
  })
}
