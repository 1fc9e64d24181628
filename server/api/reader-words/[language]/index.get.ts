import { placesIn, readerLanguages } from '~~/core/readers'
import { changedWords, wordVersion } from '~~/database/readers'

/** Everything that readers are told in a language: as it ships, and what the account says instead. */
export default defineEventHandler((event) => {
  const language = readerLanguageOf(event)
  const { db } = satchel()
  const changed = changedWords(db, language)
  return Object.entries(readerLanguages[language]).map(([key, ships]) => {
    const name = key as keyof typeof changed
    const text = changed[name] ?? ''
    return { name, ships, text, places: placesIn(ships), version: wordVersion(text) }
  })
})
