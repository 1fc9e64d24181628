import { cutPicture } from '~~/cases/letters'
import { addPicture, pictureById } from '~~/database/letters'
import { cutInput } from '~~/shared/letter-inputs'

/** A part of a picture, turned, as a picture of its own; the first one stays as it is. */
export default defineEventHandler(async (event) => {
  const cut = await readInput(event, cutInput)
  const { db, clock } = satchel()
  const picture = pictureById(db, idOf(event))
  if (!picture) throw notFound('There is no such picture.')
  if (picture.mime === 'image/gif')
    throw refused('A picture that moves can’t be cut. Cut it before you bring it here.')
  const file = await cutPicture(picture, cut)
  const { name, folder, alt, hash } = picture
  const kept = { ...file, name, folder, alt, made_from: hash, created_at: clock() }
  const { id, path } = addPicture(db, kept)
  return { id, path, width: file.width, height: file.height, weight: file.bytes.length }
})
