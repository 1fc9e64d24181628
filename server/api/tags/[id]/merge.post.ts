import { mergeTags } from '~~/database/tags'
import { tagMergeInput } from '~~/shared/inputs'

/** Joins a tag to another one. */
export default defineEventHandler(async (event) => {
  const { into } = await readInput(event, tagMergeInput)
  if (!mergeTags(satchel().db, idOf(event), into)) throw refused('Choose another tag.')
  return { ok: true }
})
