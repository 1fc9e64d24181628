import { forNobody, inColors, isArt, shareCard, webDocument } from '../../core/letters'
import { escapeHtml, letterSource } from '../../core/letters/rendering'
import type { Database } from '../../database'
import { mailingById } from '../../database/mailings'
import { letterByWebKey } from '../../database/sending'
import { outgoingOf } from './outgoing'

/** The web version of the letter with a key: for nobody in particular, with what is shown where it is shared. */
export async function webPage(db: Database, key: string, url: string): Promise<Buffer> {
  const found = letterByWebKey(db, key)!
  const { letter, frame } = outgoingOf(db, mailingById(db, found.mailing_id)!, url)
  const html = await letterSource(
    { ...letter, document: webDocument(letter.document) },
    frame,
    'html',
  )
  const { title, about, picture } = shareCard(letter)
  const own = picture && isArt(picture) ? `${inColors(picture, frame.letterhead)}-1200` : picture
  const whole = own?.startsWith('/') ? url + own : own
  const meta = [
    ['og:title', title],
    ['og:description', about],
    ['og:url', `${url}/w/${key}`],
    ...(whole ? [['og:image', whole]] : []),
  ]
    .map(([name, value]) => `<meta property="${name}" content="${escapeHtml(value!)}">`)
    .join('')
  // Nobody is left from here.
  const page = forNobody(html)
    .replace(/<a href="#leave".*?<\/a>(?: &nbsp;·&nbsp; )?/gs, '')
    .replace('</head>', `${meta}</head>`)
  return Buffer.from(page)
}
