import { recentImports } from '~~/database/imports'
import { readFields, countPeople } from '~~/database/people'

/** What stands on the left of People: everyone, the lists, those set aside, the latest imports. */
export default defineEventHandler(() => {
  const { db } = satchel()
  return {
    everyone: countPeople(db),
    setAside: countPeople(db, { setAside: true }),
    lists: countedLists(db),
    fields: readFields(db),
    imports: recentImports(db, 6),
  }
})
