import { parseFeed } from 'htmlparser2'
import { safeLink } from './clean'
import { MOST_FEED_ENTRIES, type FeedEntry } from './document'
import { parseMarkup, textOf } from './incoming/dom'

const MOST_BYTES = 2_000_000
const LONGEST_ABOUT = 220

/**
 * The entries of a feed (RSS 2.0, RDF, Atom of RFC 4287), the newest first, at most {@link MOST_FEED_ENTRIES}; entries without
 * a title or an address on the web are passed over. Throws, in words, where the text is no feed.
 */
export function readFeed(text: string, url: string): FeedEntry[] {
  if (text.length > MOST_BYTES) throw new Error('The feed is larger than 2 MB.')
  const feed = parseFeed(text)
  if (!feed) throw new Error('What came from there is no feed (RSS or Atom).')
  const entries = feed.items.flatMap((item) => {
    const title = wordsOf(item.title ?? '')
    const href = webAddress(item.link ?? '', url)
    const day = item.pubDate && !Number.isNaN(+item.pubDate) ? item.pubDate.toISOString() : ''
    const about = shortened(wordsOf(item.description ?? ''))
    return title && href ? [{ title: title.slice(0, 200), href, about, day: day.slice(0, 10) }] : []
  })
  return entries
    .map((entry, at) => ({ entry, at }))
    .sort((a, b) => b.entry.day.localeCompare(a.entry.day) || a.at - b.at)
    .slice(0, MOST_FEED_ENTRIES)
    .map(({ entry }) => entry)
}

/** Titles and descriptions may hold HTML, also written out as text. */
function wordsOf(html: string): string {
  const nodes = parseMarkup(html).filter(
    (node) => !('name' in node) || !['script', 'style'].includes(node.name),
  )
  return textOf(nodes)
}

function shortened(text: string): string {
  if (text.length <= LONGEST_ABOUT) return text
  const cut = text.slice(0, LONGEST_ABOUT)
  return `${cut.slice(0, Math.max(cut.lastIndexOf(' '), LONGEST_ABOUT / 2))}…`
}

function webAddress(href: string, base: string): string {
  try {
    const whole = new URL(href.trim(), base).href
    return /^https?:/.test(whole) ? safeLink(whole) : ''
  } catch {
    return ''
  }
}

/** What a feed told when it was read last. `waits` where it is on the engine's list. */
export interface FeedState {
  entries: FeedEntry[]
  problem: string | null
  readAt: number | null
  waits: boolean
}
