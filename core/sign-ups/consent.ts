import type { ReaderLanguage } from '../readers/words'
import { firstLanguage, partsOf, type ButtonPart, type ConsentPart, type SignUpForm } from './form'
import { wordsFor } from './words'

/** What somebody agreed to, word for word: to join some lists, or to get the promised mail alone. */
export interface Consent {
  partId: string
  wording: string
  lists: number[]
  oneMail: boolean
}

/** What somebody can agree to by a form: its boxes; where it has none, its button. */
export function purposesOf(form: SignUpForm): (ConsentPart | ButtonPart)[] {
  const boxes = partsOf(form, 'consent')
  return boxes.length > 0 ? boxes : partsOf(form, 'button')
}

/**
 * What somebody agreed to who ticked these boxes and pressed the button, in the language they saw. A box that was not
 * ticked, or has no wording, agrees to nothing.
 */
export function consentsOf(
  form: SignUpForm,
  ticked: readonly string[],
  language: ReaderLanguage,
): Consent[] {
  return purposesOf(form).flatMap((part) => {
    if (part.kind === 'consent' && !ticked.includes(part.id)) return []
    const words = part.kind === 'consent' ? part.text : part.label
    const wording = wordsFor(words, language, firstLanguage(form))
    if (!wording || (part.lists.length === 0 && !part.oneMail)) return []
    return [{ partId: part.id, wording, lists: part.lists, oneMail: part.oneMail }]
  })
}

/** The lists that consents join, each with the words that were agreed to. */
export function joinedBy(consents: readonly Consent[]): { listId: number; wording: string }[] {
  const joined = new Map<number, string>()
  for (const { lists, wording } of consents)
    for (const listId of lists) if (!joined.has(listId)) joined.set(listId, wording)
  return [...joined].map(([listId, wording]) => ({ listId, wording }))
}
