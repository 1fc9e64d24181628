import type { H3Event } from 'h3'
import { isReaderLanguage, type ReaderLanguage } from '~~/core/readers'

/** The language that a path names. */
export function readerLanguageOf(event: H3Event): ReaderLanguage {
  const language = getRouterParam(event, 'language')
  if (!isReaderLanguage(language)) throw notFound('Readers are not spoken to in this language.')
  return language
}
