import { parseRule, startsFor } from '~~/core/segments'
import { readCatalog } from '~~/database/segments'
import { readVocabulary } from '~~/database/people'

/** Segments to begin from, made from what is on file. How many people each keeps is asked for apart, some at a time. */
export default defineEventHandler(async () => {
  const { db } = satchel()
  const vocabulary = readVocabulary(db)
  const catalog = readCatalog(db)
  const place = vocabulary.fields.find(({ name }) => /town|city|place|country/i.test(name))
  const [most] = place ? await askLong('values', { key: place.key }) : []
  const common = place && most ? { field: place.key, name: place.name, value: most.value } : null
  return startsFor(vocabulary, common).flatMap((start) => {
    const parsed = parseRule(start.text, catalog)
    return parsed.ok ? [{ name: start.name, about: start.about, rule: parsed.rule }] : []
  })
})
