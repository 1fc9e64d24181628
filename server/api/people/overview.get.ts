import { recentImports } from '~~/database/imports'
import { readFields, countPeople } from '~~/database/people'

/** What stands on the left of People: everyone, the lists, those suppressed, the latest imports. */
export default defineEventHandler(() => {
  const { db } = satchel()
  return {
    everyone: countPeople(db),
    suppressed: countPeople(db, { suppressed: true }),
    lists: countedLists(db),
    fields: readFields(db),
    imports: recentImports(db, 6),
  }
})
