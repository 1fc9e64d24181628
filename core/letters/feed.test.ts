import fc from 'fast-check'
import { expect, test } from 'vitest'
import { MOST_FEED_ENTRIES } from './document'
import { readFeed } from './feed'

const at = 'https://galewright.example/journal.xml'
const rss = (items: string) =>
  `<?xml version="1.0"?><rss version="2.0"><channel><title>Journal</title>${items}</channel></rss>`

test('entries of RSS, the newest first, with their words in plain', () => {
  const text = rss(
    `<item><title>Old &amp; good</title><link>/old</link><description>&lt;p&gt;First &lt;b&gt;words&lt;/b&gt;&lt;/p&gt;&lt;script&gt;x()&lt;/script&gt;</description><pubDate>Mon, 02 Nov 2026 08:00:00 GMT</pubDate></item>
     <item><title>New</title><link>https://galewright.example/new</link><pubDate>Fri, 20 Nov 2026 08:00:00 GMT</pubDate></item>`,
  )
  expect(readFeed(text, at)).toEqual([
    { title: 'New', href: 'https://galewright.example/new', about: '', day: '2026-11-20' },
    {
      title: 'Old & good',
      href: 'https://galewright.example/old',
      about: 'First words',
      day: '2026-11-02',
    },
  ])
})

test('entries of Atom', () => {
  const text = `<feed xmlns="http://www.w3.org/2005/Atom"><title>Journal</title><entry><title>North-west</title><link href="/nw"/><updated>2026-11-21T10:00:00Z</updated><summary>Wind.</summary></entry></feed>`
  expect(readFeed(text, at)).toEqual([
    {
      title: 'North-west',
      href: 'https://galewright.example/nw',
      about: 'Wind.',
      day: '2026-11-21',
    },
  ])
})

test('what leads elsewhere than to the web, or has no title, is passed over; there is an end to it', () => {
  const many = Array.from(
    { length: 40 },
    (_, i) => `<item><title>${i}</title><link>/${i}</link></item>`,
  )
  const text = rss(
    `<item><title>Bad</title><link>javascript:x()</link></item><item><link>/none</link></item>${many.join('')}`,
  )
  const entries = readFeed(text, at)
  expect(entries).toHaveLength(MOST_FEED_ENTRIES)
  expect(entries[0]!.title).toBe('0')
})

test('a long description is cut between words', () => {
  const words = 'wind and water '.repeat(60)
  const [entry] = readFeed(
    rss(`<item><title>Long</title><link>/a</link><description>${words}</description></item>`),
    at,
  )
  expect(entry!.about.length).toBeLessThanOrEqual(221)
  expect(entry!.about).toMatch(/(wind|and|water)…$/)
})

test('no feed is refused in words; whatever comes, nothing but entries or a sentence', () => {
  expect(() => readFeed('<html><p>Not here</p></html>', at)).toThrow('no feed')
  expect(() => readFeed('x'.repeat(2_000_001), at)).toThrow('2 MB')
  fc.assert(
    fc.property(fc.string(), fc.string(), (title, link) => {
      for (const { title: shown, href } of readFeed(
        rss(`<item><title>${title}</title><link>${link}</link></item>`),
        at,
      )) {
        expect(href).toMatch(/^https?:\/\//)
        expect(shown).not.toBe('')
      }
    }),
  )
})
