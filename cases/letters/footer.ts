import type { FillInContext } from '../../core/letters'
import type { FieldValue } from '../../core/people'
import { languageKeys, saidLanguage } from '../../core/people/language'
import { languageFor, type ReaderLanguage } from '../../core/readers'
import type { FooterWords } from '../../core/letters/rendering'
import type { Database } from '../../database'
import { readAccount } from '../../database/account'
import { listById, readFields } from '../../database/people'
import { readerWords } from '../../database/readers'
import type { Content } from '../../database/sending'

/** What the footer of a letter to a list says now, in the list's language or else the account's. */
export function footerNow(db: Database, listId: number | null): FooterWords {
  const list = listId === null ? undefined : listById(db, listId)
  const account = readAccount(db)!.language
  const language = languageFor({ list: list?.language, account })
  const { unsubscribe, yourPage } = readerWords(db, language)
  return { language, unsubscribe, yourPage }
}

/** Whether a field of the account says what language somebody speaks. */
export const speaksByReader = (db: Database): boolean =>
  readFields(db).some(({ key }) => languageKeys.includes(key))

/**
 * What footers say to somebody with these values, as a part of what fill-ins can name; null where nothing says what
 * language anybody speaks. Each language is read once.
 */
export function footersFor(
  db: Database,
  listId: number | null,
): ((values: Record<string, FieldValue>) => FillInContext) | null {
  if (!speaksByReader(db)) return null
  const list = listId === null ? null : listById(db, listId)?.language
  const account = readAccount(db)!.language
  const known = new Map<ReaderLanguage, FillInContext>()
  return (values) => {
    const language = languageFor({ said: saidLanguage(values), list, account })
    let found = known.get(language)
    if (!found) {
      const { unsubscribe, yourPage } = readerWords(db, language)
      known.set(language, (found = { footer: { unsubscribe, yourPage } }))
    }
    return found
  }
}

/** What the footer of a letter said that went out; before readers had a page of their own there was one link. */
export const footerOf = ({ footer, list }: Content): FooterWords =>
  footer ?? { language: 'en', unsubscribe: `Unsubscribe from ${list.name}`, yourPage: null }
