import { readVocabulary } from '~~/database/people'

/** Everything a rule can ask about. */
export default defineEventHandler(() => ({
  ...readVocabulary(satchel().db),
  currency: account().currency,
}))
