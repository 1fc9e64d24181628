import { recentImports } from '~~/database/imports'
import { countPeople, readFields, readTags } from '~~/database/people'
import { readSegments } from '~~/database/segments'

/** What stands on the left of People and over its table: everyone, lists, those suppressed, tags, segments, the latest imports. */
export default defineEventHandler(() => {
  const { db } = satchel()
  return {
    everyone: countPeople(db),
    suppressed: countPeople(db, { suppressed: true }),
    lists: countedLists(db),
    tags: readTags(db).map(({ id, name }) => ({ id, name })),
    segments: readSegments(db).map(({ id, name }) => ({ id, name })),
    fields: readFields(db),
    imports: recentImports(db, 6),
  }
})
