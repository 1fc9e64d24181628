import { randomUUID } from 'node:crypto'
import { createWriteStream } from 'node:fs'
import { mkdir, rm } from 'node:fs/promises'
import { join } from 'node:path'
import { Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { diskFullWords, isDiskFull } from '~~/database/disk'

const LARGEST = 1024 ** 3

/** Takes a file to be imported, as the body of the request, straight to the disk. */
export default defineEventHandler(async (event) => {
  const folder = join(satchel().data, 'imports')
  await mkdir(folder, { recursive: true })
  const file = randomUUID()
  let size = 0
  const counted = new Transform({
    transform(piece: Buffer, _, next) {
      size += piece.length
      next(size > LARGEST ? new Error('too large') : null, piece)
    },
  })
  try {
    await pipeline(event.node.req, counted, createWriteStream(join(folder, file)))
  } catch (error) {
    await rm(join(folder, file), { force: true })
    if (size > LARGEST)
      throw createError({
        statusCode: 413,
        message:
          'This file is larger than 1 GB. Cut it in parts and import them one after the other.',
      })
    if (isDiskFull(error)) throw createError({ statusCode: 507, message: diskFullWords })
    throw createError({ statusCode: 400, message: 'The file did not come over whole. Try again.' })
  }
  return { file, size }
})
