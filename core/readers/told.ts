import { escapeHtml } from '../letters/parts'
import { dayIn, fillWords, type ReaderLanguage, type ReaderWords } from './words'

/** How somebody is spoken to: `plain` gives a text filled in, `html` the same for a page. */
export interface Told {
  language: ReaderLanguage
  plain(name: keyof ReaderWords, values?: Readonly<Record<string, string>>): string
  html(name: keyof ReaderWords, values?: Readonly<Record<string, string>>): string
  /** A day of the account's zone, as it is written in the language. */
  day(at: number): string
}

export function toldIn(words: ReaderWords, language: ReaderLanguage, zone: string): Told {
  const plain: Told['plain'] = (name, values = {}) => fillWords(words[name], values)
  return {
    language,
    plain,
    html: (name, values) => escapeHtml(plain(name, values)),
    day: (at) => dayIn(language, at, zone),
  }
}
