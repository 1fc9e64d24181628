import { createHash } from 'node:crypto'
import sharp from 'sharp'
import { addPicture } from '~~/database/pictures'

const LARGEST = 20 * 1024 * 1024
/** Twice the width of a letter: sharp on fine screens, and no wider. */
const WIDEST = 1200

/** Takes a picture as the body of the request, makes it to the size a letter needs, and keeps it. */
export default defineEventHandler(async (event) => {
  const { db, clock } = satchel()
  const body = await readRawBody(event, false)
  if (!body || body.length === 0)
    throw createError({ statusCode: 422, message: 'The file is empty.' })
  if (body.length > LARGEST)
    throw createError({
      statusCode: 422,
      message: 'This picture is larger than 20 MB. Make it smaller first.',
    })
  try {
    const input = sharp(body, { limitInputPixels: 60_000_000, animated: false })
    const { format } = await input.metadata()
    if (!format || !['jpeg', 'png', 'gif', 'webp'].includes(format)) throw new Error('kind')
    const sized = input.rotate().resize({ width: WIDEST, withoutEnlargement: true })
    const made = await (
      format === 'jpeg' || format === 'webp'
        ? sized.jpeg({ quality: 82, mozjpeg: true })
        : sized.png({ palette: true })
    ).toBuffer({ resolveWithObject: true })
    const mime = made.info.format === 'jpeg' ? 'image/jpeg' : 'image/png'
    const hash = createHash('sha256').update(made.data).digest('hex').slice(0, 32)
    const name = String(getQuery(event).name ?? 'picture').slice(0, 200)
    const { path } = addPicture(db, {
      hash,
      name,
      mime,
      width: made.info.width,
      height: made.info.height,
      bytes: made.data,
      created_at: clock(),
    })
    return { path, width: made.info.width, height: made.info.height, weight: made.data.length }
  } catch {
    throw createError({
      statusCode: 422,
      message: 'This file is not a picture that mail programs show. Use a JPEG, PNG or GIF.',
    })
  }
})
