import { pictureByHash } from '~~/database/pictures'

/** A picture of a letter. Its name is the hash of its bytes, so it never changes. */
export default defineEventHandler((event) => {
  const hash = getRouterParam(event, 'hash')!
  const picture = /^[0-9a-f]{32}$/.test(hash) ? pictureByHash(satchel().db, hash) : undefined
  if (!picture) throw notFound('There is no such picture.')
  setResponseHeaders(event, {
    'Content-Type': picture.mime,
    'Cache-Control': 'public, max-age=31536000, immutable',
    'X-Content-Type-Options': 'nosniff',
    'Content-Security-Policy': "default-src 'none'; sandbox",
  })
  return picture.bytes
})
