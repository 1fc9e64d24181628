import { PictureFault, readPictureFile } from '~~/cases/letters'
import { addPicture } from '~~/database/letters'

/** Takes a picture as the body of the request and keeps it in the library, in a folder if one is said. */
export default defineEventHandler(async (event) => {
  const { db, clock } = satchel()
  const file = await readPictureFile(await readRawBody(event, false)).catch((fault: Error) => {
    if (fault instanceof PictureFault)
      throw createError({ statusCode: 422, message: fault.message })
    throw fault
  })
  const query = getQuery(event)
  const { id, path } = addPicture(db, {
    ...file,
    name: String(query.name ?? 'picture').slice(0, 200),
    folder: String(query.folder ?? '').slice(0, 60),
    created_at: clock(),
  })
  return { id, path, width: file.width, height: file.height, weight: file.bytes.length }
})
