import { changeList } from '~~/database/lists'
import { listChangeInput } from '~~/shared/people-inputs'

export default defineEventHandler(async (event) => {
  const { name, description, publicName, publicAbout } = await readInput(event, listChangeInput)
  const change = { name, description, public_name: publicName, public_about: publicAbout }
  if (!changeList(satchel().db, idOf(event), change)) throw notFound('This list is not on file.')
  return { ok: true }
})
