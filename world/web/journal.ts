import type { IncomingMessage, ServerResponse } from 'node:http'

const DAY = 86_400_000

/** What is new on the shop's site: path, title, how it begins, and how many days ago. */
export const journal: [path: string, title: string, about: string, daysAgo: number][] = [
  [
    '/beach-reports',
    'Gull Harbour, the morning after the gale',
    'Wide, wet and empty: a beach for big wings, if one minds the new groyne in the north.',
    2,
  ],
  [
    '/line-care',
    'Why salt eats lines from the inside',
    'Rinse, hang, look: five minutes after each day out double the years of a line.',
    6,
  ],
  [
    '/workshop',
    'Four pairs of hands, one Delta',
    'What last winter’s workshop built, and what it took home.',
    13,
  ],
  [
    '/festival',
    'Sixty kites over Sandreach',
    'Pictures and names of all that flew at the festival.',
    27,
  ],
]

/** The journal as RSS 2.0. */
export function sendJournal(
  url: URL,
  request: IncomingMessage,
  response: ServerResponse,
  now: number,
) {
  const items = journal.map(
    ([path, title, about, daysAgo]) =>
      `<item><title>${title}</title><link>https://${url.hostname}${path}</link><description>${about}</description><pubDate>${new Date(now - daysAgo * DAY).toUTCString()}</pubDate></item>`,
  )
  const feed = `<?xml version="1.0" encoding="utf-8"?><rss version="2.0"><channel><title>The kite journal</title><link>https://${url.hostname}/</link><description>What is new at Galewright</description>${items.join('')}</channel></rss>`
  response.writeHead(200, { 'Content-Type': 'application/rss+xml; charset=utf-8' })
  response.end(request.method === 'HEAD' ? undefined : feed)
}
