import { placesIn, readerLanguages, type ReaderWords } from '~~/core/readers'
import { changedWords, changeWord, wordVersion } from '~~/database/readers'
import { readerWordInput } from '~~/shared/account-inputs'

/** Says something else to readers than what ships, over the version its editor saw; nothing: what ships again. */
export default defineEventHandler(async (event) => {
  const language = readerLanguageOf(event)
  const name = getRouterParam(event, 'name')! as keyof ReaderWords
  if (!Object.hasOwn(readerLanguages[language], name)) throw notFound('There is no such text.')
  const { text, version } = await readInput(event, readerWordInput)
  const { db } = satchel()
  const before = changedWords(db, language)[name] ?? ''
  if (wordVersion(before) !== version)
    throw overtaken('Somebody else changed this text meanwhile. Look at theirs first.')
  const places = placesIn(readerLanguages[language][name])
  const unknown = placesIn(text).filter((place) => !places.includes(place))
  if (unknown.length) {
    const there = places.map((place) => `{${place}}`).join(', ')
    const may = places.length
      ? `What can be filled in here is ${there}.`
      : 'Nothing is filled in here.'
    throw fieldFault('text', `{${unknown[0]}} is not known here. ${may}`)
  }
  changeWord(db, language, name, text || null)
  return { version: wordVersion(text) }
})
