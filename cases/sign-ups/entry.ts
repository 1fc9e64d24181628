import {
  nameOf,
  partsOf,
  purposesOf,
  wordsFor,
  firstLanguage,
  type Posted,
  type SignUpForm,
} from '../../core/sign-ups'
import { showFieldValue, type FieldValue } from '../../core/people'
import type { ReaderLanguage } from '../../core/readers'

/** What a program hands in for somebody who filled in a form of its own. */
export interface SignUpEntry {
  address: string
  /** By the key of a field. */
  values: Record<string, FieldValue>
  /** What they agreed to: the wordings of the form's boxes or of its button, word for word. */
  agreed: string[]
}

/**
 * An entry as the form itself would have posted it; or where it does not fit the form, and why. Whoever agreed to words that
 * the form does not have agreed to something else.
 */
export function postedOf(
  form: SignUpForm,
  language: ReaderLanguage,
  { address, values, agreed }: SignUpEntry,
): { posted: Posted } | { path: string; problem: string } {
  const posted: Record<string, string[]> = {}
  const parts = new Map(partsOf(form, 'field').map((part) => [part.field, part]))
  posted[nameOf.field(parts.get('address')!)] = [address]
  for (const [key, value] of Object.entries(values)) {
    const part = key === 'address' ? undefined : parts.get(key)
    if (!part) return { path: `values.${key}`, problem: `The form does not ask for “${key}”.` }
    posted[nameOf.field(part)] = Array.isArray(value) ? value : [showFieldValue(value)]
  }
  const wordingOf = (part: ReturnType<typeof purposesOf>[number]) =>
    wordsFor(part.kind === 'consent' ? part.text : part.label, language, firstLanguage(form))
  const purposes = purposesOf(form)
  for (const [i, words] of agreed.entries()) {
    const part = purposes.find((one) => wordingOf(one) === words.trim())
    if (!part)
      return { path: `agreed[${i}]`, problem: 'The form, as it is published, has no such wording.' }
    if (part.kind === 'consent') posted[nameOf.tick(part)] = ['yes']
  }
  if (agreed.length === 0) return { path: 'agreed', problem: 'Say what this person agreed to.' }
  return { posted }
}

/** Where a fault of a part of the form stands in an entry. */
export function pathOf(form: SignUpForm, partId: string): string {
  const part = form.parts.find(({ id }) => id === partId)
  if (part?.kind !== 'field') return 'agreed'
  return part.field === 'address' ? 'address' : `values.${part.field}`
}
