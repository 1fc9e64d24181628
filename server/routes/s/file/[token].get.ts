import { readToken } from '~~/core/delivery'
import { fileById, sendingById } from '~~/database/sign-ups'

/** The promised file, for whoever has confirmed that they want it; their mail and page have the link. */
export default defineEventHandler((event) => {
  const { db } = satchel()
  const of = readToken(publicTokens(), 'file', getRouterParam(event, 'token')!)
  // The token names the file, then the sending that asked for it.
  const asked = of && sendingById(db, of.personId)
  const file = asked?.state === 'confirmed' ? fileById(db, of!.mailingId) : undefined
  if (!file) return noSuchLink(event)
  setResponseHeaders(event, {
    'Content-Type': file.mime,
    'Content-Disposition': `attachment; filename*=UTF-8''${encodeURIComponent(file.name)}`,
    'Content-Security-Policy': "default-src 'none'; sandbox",
    'X-Content-Type-Options': 'nosniff',
    'X-Robots-Tag': 'noindex',
    'Cache-Control': 'private, max-age=3600',
  })
  return file.bytes
})
