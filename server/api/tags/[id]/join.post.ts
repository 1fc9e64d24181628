import { joinTags } from '~~/database/people'
import { tagJoinInput } from '~~/shared/people-inputs'

/** Joins a tag to another one. */
export default defineEventHandler(async (event) => {
  const { into } = await readInput(event, tagJoinInput)
  if (!joinTags(satchel().db, idOf(event), into)) throw refused('Choose another tag.')
  return { ok: true }
})
