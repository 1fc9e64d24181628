import { blocksOf } from '../../letters'
import type { Mark, ProofFacts } from '../mark'

/** The law of most countries asks for the sender's postal address in every letter to a list. */
export function postalAddress({ letter, postalAddress: address }: ProofFacts): Mark[] {
  const base = { check: 'postal-address', level: 'blocker' as const }
  const footer = blocksOf(letter.document).find((block) => block.kind === 'footer')
  if (!footer)
    return [
      {
        ...base,
        blockId: null,
        title: 'No footer',
        detail: 'A letter ends with the postal address and the way to unsubscribe.',
        repairs: [{ words: 'Put one at the end', change: { is: 'footer' } }],
      },
    ]
  if (address.trim() === '')
    return [
      {
        ...base,
        blockId: footer.id,
        title: 'No postal address in the footer',
        detail: 'Write it once in Settings; it stands in every letter.',
      },
    ]
  return []
}
