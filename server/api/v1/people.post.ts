import { EntryFault, takePerson, type ApiPerson } from '~~/database/imports'
import { apiPerson } from '~~/shared/api-inputs'

/** Adds people, or changes those on file. */
export default defineEventHandler((event) => {
  const { db, clock } = satchel()
  return takeApiBatch<ApiPerson>(event, apiPerson, (entry) => {
    let values
    try {
      values = valuesFrom(entry.values)
    } catch (error) {
      const { fields } = (error as { data?: { fields?: Record<string, string> } }).data ?? {}
      if (!fields) throw error
      const [path, message] = Object.entries(fields)[0]!
      throw new EntryFault(path, message)
    }
    return takePerson(db, { ...entry, values }, clock())
  })
})
