import { linksOf } from '../../letters'
import type { Mark, ProofFacts } from '../mark'

/** Links that lead nowhere, and links whose page answers an error. Not asked yet: a note says so. */
export function links({ letter, links: known }: ProofFacts): Mark[] {
  const marks: Mark[] = []
  const waiting = new Set<string>()
  for (const { url, blockId, words } of linksOf(letter.document)) {
    const named = words.trim() ? `“${words.trim()}”` : 'A link without words'
    if (url === '') {
      marks.push({
        check: 'links',
        level: 'blocker',
        blockId,
        title: 'Link leads nowhere',
        detail: `${named} has no address to go to.`,
      })
      continue
    }
    if (!/^https?:/i.test(url)) continue
    const found = known.get(url)
    if (!found) waiting.add(url)
    else if (found.status === null)
      marks.push({
        check: 'links',
        level: 'blocker',
        blockId,
        title: 'Link does not answer',
        detail: `${named} leads to ${shortUrl(url)}: ${found.problem ?? 'no answer came'}.`,
      })
    else if (found.status >= 400)
      marks.push({
        check: 'links',
        level: 'blocker',
        blockId,
        title: `Link answers ${found.status}`,
        detail: `${named} leads to ${shortUrl(url)}, ${meaningOf(found.status)}.`,
      })
  }
  if (waiting.size)
    marks.push({
      check: 'links',
      level: 'note',
      blockId: null,
      title:
        waiting.size === 1
          ? 'A link is being looked at'
          : `${waiting.size} links are being looked at`,
      detail: [...waiting].map(shortUrl).join(', '),
    })
  return marks
}

function meaningOf(status: number): string {
  if (status === 404 || status === 410) return 'a page that is not there'
  return status >= 500 ? 'a page that is broken just now' : 'a page that refuses visitors'
}

function shortUrl(url: string): string {
  const short = url.replace(/^https?:\/\//i, '').replace(/\/$/, '')
  return short.length > 60 ? `${short.slice(0, 59)}…` : short
}
