import type { Mark, ProofFacts } from '../mark'

/** A letter without a subject looks like a mistake, and is filtered like one. */
export function subject({ letter }: ProofFacts): Mark[] {
  if (letter.subject.trim() !== '') return []
  return [
    {
      check: 'subject',
      level: 'blocker',
      blockId: null,
      title: 'The subject is empty',
      detail: 'Say in a few words what is inside.',
    },
  ]
}
