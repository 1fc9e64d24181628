import { fieldVersion, ownFields } from '~~/database/people'

/** The account's own fields, with how many people have a value of each. */
export default defineEventHandler(async () => {
  const counts = await askLong('fieldCounts', {}, 'fields')
  const { db } = satchel()
  return ownFields(db).map((field) => ({
    ...field,
    people: counts[field.key] ?? 0,
    version: fieldVersion(db, field.key)!,
  }))
})
