import { updatePicture } from '~~/database/letters'
import { pictureInput } from '~~/shared/letter-inputs'

/** Changes a picture's name, folder or words. */
export default defineEventHandler(async (event) => {
  const change = await readInput(event, pictureInput)
  const said = Object.fromEntries(Object.entries(change).filter(([, value]) => value !== undefined))
  if (!updatePicture(satchel().db, idOf(event), said)) throw notFound('There is no such picture.')
  return { ok: true }
})
