import { isReaderLanguage, type ReaderLanguage } from '../readers/words'

/** One text of a form in each of its languages. */
export type Words = Partial<Record<ReaderLanguage, string>>

/** A text in one language; in the form's first where that has none. */
export function wordsFor(words: Words, language: ReaderLanguage, first: ReaderLanguage): string {
  return words[language]?.trim() || words[first]?.trim() || ''
}

/** Out of what came from outside: at most `most` characters in each language of ours. */
export function readWords(json: unknown, most: number): Words {
  const words: Words = {}
  for (const [language, text] of Object.entries((json ?? {}) as object))
    if (isReaderLanguage(language) && typeof text === 'string' && text !== '')
      words[language] = text.normalize('NFC').slice(0, most)
  return words
}
