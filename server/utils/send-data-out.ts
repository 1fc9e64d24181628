import { createReadStream } from 'node:fs'
import { stat } from 'node:fs/promises'
import { join } from 'node:path'
import type { H3Event } from 'h3'

/** A file of data as it stands on the disk; null where it is not made yet, or gone. */
export async function dataOutFile({ id }: { id: number }) {
  const path = join(satchel().data, 'data-out', `${id}.zip`)
  return stat(path).then(
    ({ size }) => ({ path, size }),
    () => null,
  )
}

/** Sends a file of data. */
export function sendDataOut(
  event: H3Event,
  { path, size }: { path: string; size: number },
  { created_at }: { created_at: number },
) {
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
