import { readerLanguages, toldIn } from '../readers'
import { defaultLetterhead } from '../letters/letterhead'
import type { Field } from '../people/fields'
import type { FormPart, SignUpForm } from './form'
import type { Drawing } from './html'
import { drawnLook } from './look'
import { readForm } from './read-form'

/** Fields of a made-up account, for tests. */
export const someFields = new Map<string, Field>(
  (
    [
      { key: 'first_name', name: 'First name', kind: 'text' },
      { key: 'last_name', name: 'Last name', kind: 'text' },
      { key: 'town', name: 'Town', kind: 'choice' },
      { key: 'styles', name: 'Flying style', kind: 'choices' },
      { key: 'birthday', name: 'Birthday', kind: 'date' },
    ] as const
  ).map((field) => [field.key, field]),
)

/** A form with the parts given besides its address and button, as it is read from what is on file; for tests. */
export function someForm(parts: readonly object[], over: object = {}): SignUpForm {
  return readForm({ kind: 'hosted', languages: ['en'], parts, ...over })!
}

export const guideBox = { id: 'guide', kind: 'consent', text: { en: 'The guide.' }, oneMail: true }
export const windBox = { id: 'wind', kind: 'consent', text: { en: 'Wind notes.' }, lists: [1] }

/** A form drawn in English for nobody in particular; for tests. */
export function drawn(form: SignUpForm, over: Partial<Drawing> = {}): Drawing {
  return {
    ...{ form, language: 'en', told: toldIn(readerLanguages.en, 'en', 'UTC'), fields: someFields },
    ...{ look: drawnLook(form, defaultLetterhead), action: '/s/key', token: 'drawn', version: 1 },
    sender: { name: 'Galewright Kites', postalAddress: '1 Slipway\nSandreach' },
    ...over,
  }
}

export const partOf = (form: SignUpForm, id: string): FormPart =>
  form.parts.find((part) => part.id === id)!
