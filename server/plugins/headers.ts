import { createHash } from 'node:crypto'

/** On every answer, whatever it is; a page says more of itself. */
const everywhere: Readonly<Record<string, string>> = {
  'X-Content-Type-Options': 'nosniff',
  // Not none at all: a form of ours then says that it comes from nowhere (Fetch, 4.5: Origin is `null`).
  'Referrer-Policy': 'same-origin',
  'Permissions-Policy':
    'camera=(), microphone=(), geolocation=(), payment=(), usb=(), serial=(), bluetooth=(), midi=(), display-capture=()',
  // Nothing of ours is framed by anybody; what is meant to be says so itself.
  'Content-Security-Policy': "default-src 'none'; frame-ancestors 'none'; base-uri 'none'",
}

/** A year; only where browsers reach this Satchel over https (RFC 6797). */
const HSTS = 'max-age=31536000'

/**
 * What the application's pages may do: run scripts of ours and those that the page itself begins with, by their hash. Letters
 * show pictures from anywhere, in frames with a policy of their own (app/composables/framed.ts).
 */
const pagePolicy = (hashes: string[]) =>
  [
    "default-src 'none'",
    `script-src 'self' ${hashes.join(' ')}`,
    "worker-src 'self'",
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob: https: http:",
    "font-src 'self' data:",
    "connect-src 'self'",
    "manifest-src 'self'",
    "frame-src 'self'",
    "form-action 'self'",
    "base-uri 'none'",
    "object-src 'none'",
    "frame-ancestors 'none'",
  ].join('; ')

export default defineNitroPlugin((nitro) => {
  nitro.hooks.hook('request', (event) => {
    const { res } = event.node
    for (const [name, value] of Object.entries(everywhere)) res.setHeader(name, value)
    if (event.path.startsWith('/api/')) res.setHeader('Cache-Control', 'no-store')
    if (satchel().url.startsWith('https:')) res.setHeader('Strict-Transport-Security', HSTS)
  })
  nitro.hooks.hook('render:response', (response) => {
    if (typeof response.body !== 'string') return
    response.headers = {
      ...response.headers,
      'content-security-policy': pagePolicy(inlineHashes(response.body)),
      'cross-origin-opener-policy': 'same-origin',
    }
    delete response.headers['x-powered-by']
  })
})

/** The scripts that stand in a page, as a policy names them (CSP level 3, 2.3.1). Data in JSON is no script. */
function inlineHashes(html: string): string[] {
  return [...html.matchAll(/<script\b([^>]*)>([\s\S]*?)<\/script>/gi)]
    .filter(([, attributes]) => !/\bsrc=|application\/json/i.test(attributes!))
    .map(([, , script]) => `'sha256-${createHash('sha256').update(script!).digest('base64')}'`)
}
