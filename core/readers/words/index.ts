import { languageNamed } from '../../people/language'
import { de } from './de'
import { en, type ReaderWords } from './en'
import { es } from './es'
import { fr } from './fr'
import { it } from './it'
import { nl } from './nl'

export type { ReaderWords } from './en'

/** The languages that readers are spoken to in, by their code (ISO 639-1), with what each is called in itself. */
export const readerLanguages = { en, de, fr, es, nl, it } satisfies Record<string, ReaderWords>
export type ReaderLanguage = keyof typeof readerLanguages
export const languageNames: Record<ReaderLanguage, string> = {
  en: 'English',
  de: 'Deutsch',
  fr: 'Français',
  es: 'Español',
  nl: 'Nederlands',
  it: 'Italiano',
}

/** Which way a language is written: the languages of the Arabic, Hebrew, Syriac and Thaana scripts run from right to left. */
export const directionOf = (language: string): 'ltr' | 'rtl' =>
  ['ar', 'fa', 'he', 'ur', 'ps', 'sd', 'ug', 'yi', 'ckb', 'dv', 'syr'].includes(language)
    ? 'rtl'
    : 'ltr'

export const isReaderLanguage = (code: unknown): code is ReaderLanguage =>
  typeof code === 'string' && Object.hasOwn(readerLanguages, code)

/**
 * The language in which somebody is spoken to: what a field of theirs says, where it is one of ours; or else their list's,
 * or else the account's.
 */
export function languageFor(of: {
  said?: unknown
  list?: ReaderLanguage | null | undefined
  account: ReaderLanguage
}): ReaderLanguage {
  const said = typeof of.said === 'string' ? languageNamed(of.said) : null
  return isReaderLanguage(said) ? said : (of.list ?? of.account)
}

/** What a language's words are instead, by their names. */
export type ChangedWords = Partial<Record<keyof ReaderWords, string>>

/** The words of a language with those that the account put in their place. */
export const wordsIn = (language: ReaderLanguage, changed: ChangedWords = {}): ReaderWords => ({
  ...readerLanguages[language],
  ...changed,
})

/** What is filled in in a text, by its names, in the order of the alphabet. */
export const placesIn = (text: string): string[] =>
  [...new Set(Array.from(text.matchAll(/\{(\w+)\}/g), ([, name]) => name!))].sort()

/** A text with its places filled in; one that has no value stays empty. */
export const fillWords = (text: string, values: Readonly<Record<string, string>>): string =>
  text.replace(/\{(\w+)\}/g, (_, name: string) => values[name] ?? '')

/** A day as it is written in a language. `zone`: the account's, whose day it is. */
export const dayIn = (language: ReaderLanguage, at: number, zone: string): string =>
  new Intl.DateTimeFormat(language === 'en' ? 'en-GB' : language, {
    ...{ day: 'numeric', month: 'long', year: 'numeric' },
    timeZone: zone,
  }).format(at)
