import { blocksOf, contrast, inheritedStyle, rowOfBlock } from '../../letters'
import type { Mark, ProofFacts } from '../mark'

/** Text that does not stand out from its ground (WCAG 2.2, 1.4.3: 4.5 to 1). */
export function contrasts({ letter, letterhead }: ProofFacts): Mark[] {
  const { document } = letter
  return blocksOf(document).flatMap((block): Mark[] => {
    const row = rowOfBlock(document, block.id)!
    const style = inheritedStyle(letterhead, document.style, row.style, block.style)
    const { ink, accent, behind, onAccent } = style
    const isFilled = block.kind === 'button' && !block.outline
    const [front, back] = isFilled ? [onAccent, accent] : [ink, behind]
    const hasText = 'text' in block || block.kind === 'button' || block.kind === 'table'
    const ratio = contrast(front, back)
    // The footer has a quiet ink of its own.
    if (!hasText || block.kind === 'footer' || ratio >= 4.5) return []
    return [
      {
        check: 'contrast',
        level: 'caution',
        blockId: block.id,
        title: `Hard to read: ${ratio.toFixed(1)} to 1`,
        detail: `${front} on ${back}; text should stand out by 4.5 to 1.`,
      },
    ]
  })
}
