import type { Mark, ProofFacts } from '../mark'

/** A mailing needs people. */
export function audience({ listName, audienceCount, segmentProblems }: ProofFacts): Mark[] {
  const base = { check: 'audience', level: 'blocker' as const, blockId: null, title: 'No audience' }
  if (listName === null) return [{ ...base, detail: 'Choose the list this mailing goes to.' }]
  if (segmentProblems.length > 0)
    return [{ ...base, title: 'The segment can’t be asked', detail: segmentProblems.join(' ') }]
  if (audienceCount === 0)
    return [
      { ...base, detail: `Nobody on ${listName} is left after the segment and those suppressed.` },
    ]
  return []
}
