import { createReadStream } from 'node:fs'
import { stat } from 'node:fs/promises'
import { join } from 'node:path'
import type { H3Event } from 'h3'

/** Sends a file of data. Throws where it is not made yet, or gone. */
export async function sendDataOut(
  event: H3Event,
  { id, created_at }: { id: number; created_at: number },
) {
  const path = join(satchel().data, 'data-out', `${id}.zip`)
  const size = await stat(path).then(
    (found) => found.size,
    () => null,
  )
  if (size === null) throw notFound('This file is not there.')
  const day = new Date(created_at).toISOString().slice(0, 10)
  setResponseHeaders(event, {
    'Content-Type': 'application/zip',
    'Content-Length': size,
    'Content-Disposition': `attachment; filename="mailings-${day}.zip"`,
    'Cache-Control': 'no-store',
    'X-Content-Type-Options': 'nosniff',
  })
  return sendStream(event, createReadStream(path))
}
