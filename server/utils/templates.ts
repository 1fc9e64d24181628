import type { Letter } from '~~/core/letters'
import { templateLetter, templates } from '~~/core/letters/templates'
import { ownTemplateLetter, ownTemplateName } from '~~/database/letters'

/** The letter of a template, and what a mailing made from it is called: `own-7` is one of the account's own. */
export function letterToStartFrom(key: string): { letter: Letter; name: string } {
  const own = /^own-(\d{1,12})$/.exec(key)?.[1]
  if (own !== undefined) {
    const { db } = satchel()
    const letter = ownTemplateLetter(db, Number(own))
    if (!letter) throw notFound('This template is not there any more.')
    return { letter, name: ownTemplateName(db, Number(own))! }
  }
  const name = templates.find((one) => one.key === key)?.name ?? 'A new letter'
  return { letter: templateLetter(key), name }
}
