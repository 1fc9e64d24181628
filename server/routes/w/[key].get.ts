import { shareCard, webDocument } from '~~/core/letters'
import { letterSource } from '~~/core/letters/rendering'
import { letterByWebKey } from '~~/database/web-version'

/** A letter's web version: for nobody in particular, with what is shown where it is shared. */
export default defineEventHandler(async (event) => {
  const { db, url } = satchel()
  const key = getRouterParam(event, 'key')!
  const letter = /^[\w-]{10,40}$/.test(key) ? letterByWebKey(db, key) : undefined
  if (!letter) return noSuchLink(event)
  const html = await letterSource(
    { ...letter, document: webDocument(letter.document) },
    letterFrame(letter),
    'html',
  )
  const { title, about, picture } = shareCard(letter)
  const whole = picture?.startsWith('/') ? url + picture : picture
  const meta = [
    ['og:title', title],
    ['og:description', about],
    ['og:url', `${url}/w/${key}`],
    ...(whole ? [['og:image', whole]] : []),
  ]
    .map(([name, value]) => `<meta property="${name}" content="${escapeText(value!)}">`)
    .join('')
  setResponseHeaders(event, {
    'Content-Type': 'text/html; charset=utf-8',
    'Content-Security-Policy':
      "default-src 'none'; style-src 'unsafe-inline'; img-src 'self' https: http:; base-uri 'none'; form-action 'none'; frame-ancestors 'none'",
    'Referrer-Policy': 'no-referrer',
  })
  // Nobody is left from here.
  return forNobody(html)
    .replace(/<a href="#leave".*?<\/a>/s, '')
    .replace('</head>', `${meta}</head>`)
})
