import { shareCard, webDocument } from '~~/core/letters'
import { letterSource } from '~~/core/letters/rendering'
import { letterByWebKey, webMark } from '~~/database/sending'
import { mailingById } from '~~/database/mailings'

/** A page that is kept, as bytes, and what it was made of. */
interface Kept {
  mark: string
  page: Promise<Buffer>
  /** Until then nobody looks whether anything has changed, ms of the process. */
  until: number
}

/** As many letters are kept as many people may read at a time. */
const MOST = 200
/** Whether something has changed is asked so often, ms: a change is seen at once for anybody who looks. */
const LOOK = 100
const kept = new Map<string, Kept>()

/** The web version of the letter with a key: made once, and kept until something of it changes. Null: there is none. */
export async function webVersion(key: string): Promise<Buffer | null> {
  const known = kept.get(key)
  if (known && performance.now() < known.until) return known.page
  const mark = webMark(satchel().db, key)
  if (mark === null) {
    kept.delete(key)
    return null
  }
  const until = performance.now() + LOOK
  if (known?.mark === mark) {
    known.until = until
    return known.page
  }
  // Whoever comes while it is made waits for the same one.
  const page = make(key)
  kept.delete(key)
  kept.set(key, { mark, page, until })
  page.catch(() => kept.get(key)?.page === page && kept.delete(key))
  if (kept.size > MOST) kept.delete(kept.keys().next().value!)
  return page
}

/** For nobody in particular, with what is shown where it is shared. */
async function make(key: string): Promise<Buffer> {
  const { db, url } = satchel()
  const found = letterByWebKey(db, key)!
  const { letter, frame } = outgoingOf(mailingById(db, found.mailing_id)!)
  const html = await letterSource(
    { ...letter, document: webDocument(letter.document) },
    frame,
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
  // Nobody is left from here.
  const page = forNobody(html)
    .replace(/<a href="#leave".*?<\/a>/s, '')
    .replace('</head>', `${meta}</head>`)
  return Buffer.from(page)
}
