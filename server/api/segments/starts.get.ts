import { parseRule, startsFor } from '~~/core/segments'
import { readCatalog } from '~~/database/segments'
import { readVocabulary } from '~~/database/people'

/** Segments to begin from, made from what is on file, each with how many people it keeps now. */
export default defineEventHandler(async () => {
  const { db, clock } = satchel()
  const vocabulary = readVocabulary(db)
  const catalog = readCatalog(db)
  const place = vocabulary.fields.find(({ name }) => /town|city|place|country/i.test(name))
  const [most] = place ? await askLong('values', { key: place.key }) : []
  const common = place && most ? { field: place.key, name: place.name, value: most.value } : null
  const starts = startsFor(vocabulary, common).flatMap((start) => {
    const parsed = parseRule(start.text, catalog)
    return parsed.ok ? [{ name: start.name, about: start.about, rule: parsed.rule }] : []
  })
  const sizes = await askLong('sizes', { rules: starts.map(({ rule }) => rule), now: clock() })
  return starts.map((start, i) => ({ ...start, n: sizes[i]! }))
})
