import { ownFields } from '~~/database/fields'

/** The account's own fields, with how many people have a value of each. */
export default defineEventHandler(async () => {
  const counts = await askLong('fieldCounts', {}, 'fields')
  return ownFields(satchel().db).map((field) => ({ ...field, people: counts[field.key] ?? 0 }))
})
