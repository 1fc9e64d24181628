import type { Mark, ProofFacts } from '../mark'

/** Beyond this many bytes of HTML many mail programs cut a letter, and its way out with it. */
export const CUT_AT = 102 * 1024

/** What the letter weighs, where it was reckoned: the whole, and what is left out on some screens. */
export function weight({ weight: reckoned }: ProofFacts): Mark[] {
  if (!reckoned) return []
  const base = { check: 'weight', blockId: null }
  const kb = (bytes: number) => `${Math.max(1, Math.round(bytes / 1024))} KB`
  const marks: Mark[] = []
  if (reckoned.whole > CUT_AT)
    marks.push({
      ...base,
      level: 'caution',
      title: `The letter weighs ${kb(reckoned.whole)}`,
      detail: `Many mail programs cut what is over ${kb(CUT_AT)}, and the unsubscribe link with it. Remove something.`,
    })
  if (reckoned.hidden > 0)
    marks.push({
      ...base,
      level: 'note',
      title: `${kb(reckoned.hidden)} are hidden on some screens`,
      detail:
        'They are sent all the same, since which screen a letter is read on shows only there.',
    })
  return marks
}
