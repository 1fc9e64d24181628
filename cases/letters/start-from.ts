import type { Letter } from '../../core/letters'
import { templateLetter, templates } from '../../core/letters/templates'
import type { Database } from '../../database'
import { ownTemplateLetter, ownTemplateName } from '../../database/letters'

/**
 * The letter of a template, and what a mailing made from it is called: `own-7` is one of the account's own. Null: it is
 * not there any more.
 */
export function letterToStartFrom(
  db: Database,
  key: string,
): { letter: Letter; name: string } | null {
  const own = /^own-(\d{1,12})$/.exec(key)?.[1]
  if (own !== undefined) {
    const letter = ownTemplateLetter(db, Number(own))
    return letter ? { letter, name: ownTemplateName(db, Number(own))! } : null
  }
  const name = templates.find((one) => one.key === key)?.name ?? 'A new letter'
  return { letter: templateLetter(key), name }
}
