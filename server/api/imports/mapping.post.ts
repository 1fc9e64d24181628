import { mappingFor } from '~~/database/imports'
import { mappingInput } from '~~/shared/people-inputs'

/** How a file with this header was taken the last time; null where there was none. */
export default defineEventHandler(async (event) => {
  const { header } = await readInput(event, mappingInput)
  return { mapping: mappingFor(satchel().db, header) }
})
