import {
  wordsIn,
  type ChangedWords,
  type ReaderLanguage,
  type ReaderWords,
} from '../../core/readers'
import { all, q, run, transact, type Database } from '../query'
import { markOf } from '../versions'

/** What readers are told in a language: the words that ship, with those that the account put in their place. */
export function readerWords(db: Database, language: ReaderLanguage): ReaderWords {
  return wordsIn(language, changedWords(db, language))
}

export function changedWords(db: Database, language: ReaderLanguage): ChangedWords {
  const rows = q
    .selectFrom('reader_words')
    .select(['name', 'text'])
    .where('language', '=', language)
  return Object.fromEntries(all(db, rows).map(({ name, text }) => [name, text]))
}

/** The mark by which two who change a text are told apart. */
export const wordVersion = (text: string) => markOf([text])

/** Puts a text in the place of one that ships; null: that one again. */
export function changeWord(
  db: Database,
  language: ReaderLanguage,
  name: keyof ReaderWords,
  text: string | null,
) {
  transact(db, () => {
    run(db, q.deleteFrom('reader_words').where('language', '=', language).where('name', '=', name))
    if (text !== null) run(db, q.insertInto('reader_words').values({ language, name, text }))
  })
}
