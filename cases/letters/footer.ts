import { languageFor } from '../../core/readers'
import type { FooterWords } from '../../core/letters/rendering'
import type { Database } from '../../database'
import { readAccount } from '../../database/account'
import { listById } from '../../database/people'
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

/** What the footer of a letter said that went out; before readers had a page of their own there was one link. */
export const footerOf = ({ footer, list }: Content): FooterWords =>
  footer ?? { language: 'en', unsubscribe: `Unsubscribe from ${list.name}`, yourPage: null }
