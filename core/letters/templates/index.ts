import { emptyLetter } from '../document'
import { startingLetter } from '../starting-letter'
import { greeting } from './greeting'
import { inviting } from './inviting'
import { selling } from './selling'
import { telling } from './telling'
import type { Template } from './build'

export { inTemplate } from './in-template'
export { purposes } from './build'
export type { Purpose, Template } from './build'

/** Every letter to start from that Satchel ships with. */
export const templates: Template[] = [...telling, ...greeting, ...selling, ...inviting]

/** The letter of a template; `empty` is an empty page, and what nobody has heard of the usual start. */
export function templateLetter(key: string | undefined) {
  if (key === 'empty') return emptyLetter()
  return templates.find((template) => template.key === key)?.letter ?? startingLetter()
}

/** Templates by purpose and by words, which may be parts of words. */
export function findTemplates(words: string, purpose: string | null): Template[] {
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean)
  return templates.filter((template) => {
    const all = `${template.name} ${template.about} ${template.words}`.toLowerCase()
    return (
      (purpose === null || template.purpose === purpose) &&
      wanted.every((word) => all.includes(word))
    )
  })
}
