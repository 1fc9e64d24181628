import type { Mark, ProofFacts } from '../mark'

/** Who was asked to approve a letter is waited for, and says of which letter they approve. */
export function approval({ approval: asked }: ProofFacts): Mark[] {
  if (!asked || (asked.verdict === 'approved' && !asked.lapsed)) return []
  const base = { check: 'approval', level: 'blocker' as const, blockId: null }
  if (asked.lapsed)
    return [
      {
        ...base,
        title: 'Changed since it was approved',
        detail: `${asked.ofName} approved it before ${asked.lapsedBy.join(', ')} changed. Ask again, or go without.`,
      },
    ]
  if (asked.verdict === 'not yet')
    return [
      {
        ...base,
        title: `${asked.ofName} said “not yet”`,
        detail: asked.words || 'Change what they meant, then ask again.',
      },
    ]
  return [
    {
      ...base,
      title: `Waits for ${asked.ofName}`,
      detail: 'They were asked to approve it and have not answered yet.',
    },
  ]
}
