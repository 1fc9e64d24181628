import { open } from 'node:fs/promises'
import { previewBytes } from '~~/core/people'
import { importById } from '~~/database/imports'

/** The beginning of an import's file, from which its columns are understood anew. */
export default defineEventHandler(async (event) => {
  const found = importById(satchel().db, idOf(event))
  if (!found) throw notFound('This import is not on file.')
  const file = await open(found.path).catch(() => null)
  if (!file) throw refused('The file is gone. Choose it again.')
  try {
    const { buffer, bytesRead } = await file.read(Buffer.alloc(previewBytes), 0, previewBytes, 0)
    setResponseHeader(event, 'Content-Type', 'application/octet-stream')
    return buffer.subarray(0, bytesRead)
  } finally {
    await file.close()
  }
})
