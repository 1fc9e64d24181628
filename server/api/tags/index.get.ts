import { tagsWithCounts, tagVersion } from '~~/database/people'

export default defineEventHandler(() => {
  const { db } = satchel()
  return tagsWithCounts(db).map((tag) => ({ ...tag, version: tagVersion(db, tag.id)! }))
})
