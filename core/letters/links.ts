import { blocksOf, shownEntries, type LetterDocument } from './document'
import { inlinesOf } from './rich-text'
import { attribute, findAll, parseMarkup, textOf } from './incoming/dom'

/** Numbers of links to picked products begin here; a letter has fewer links of its own. */
export const FIRST_PRODUCT_LINK = 10_000

/** Numbers of the links of a test's n-th variant begin here. */
export function firstLinkOf(variant: number): number {
  return variant * 1_000
}

/** One link of a letter: where it leads and in which block it stands. `words` is what the reader clicks on. */
export interface LetterLink {
  url: string
  blockId: string
  words: string
}

/** Every link in reading order, also empty ones. A link's place in this list is its number in public links. */
export function linksOf(document: LetterDocument): LetterLink[] {
  return blocksOf(document).flatMap((block): LetterLink[] => {
    switch (block.kind) {
      case 'button':
      case 'product':
        return [{ url: block.href, blockId: block.id, words: block.label }]
      case 'picture':
        return block.href
          ? [{ url: block.href, blockId: block.id, words: block.alt || 'picture' }]
          : []
      case 'film':
        return [{ url: block.href, blockId: block.id, words: block.alt || 'film' }]
      case 'social':
        return block.links.map(({ name, href }) => ({ url: href, blockId: block.id, words: name }))
      case 'feed':
        return shownEntries(block).map(({ href, title }) => ({
          url: href,
          blockId: block.id,
          words: title,
        }))
      case 'heading':
      case 'text':
      case 'quote':
      case 'footer':
        return linkRuns(inlinesOf(block.text.content)).map(({ url, words }) => ({
          url,
          words,
          blockId: block.id,
        }))
      case 'html':
        return htmlLinks(block.html).map((link) => ({ ...link, blockId: block.id }))
      case 'divider':
      case 'space':
      case 'table':
      case 'contents':
      case 'picks':
      case 'code':
        return []
    }
  })
}

/** Neighbouring pieces of text under the same link are one link. */
export function linkRuns(
  nodes: ReturnType<typeof inlinesOf>,
): { url: string; words: string; nodes: number[] }[] {
  const runs: { url: string; words: string; nodes: number[] }[] = []
  let open: (typeof runs)[number] | null = null
  nodes.forEach((node, i) => {
    const mark = node.type === 'text' ? node.marks?.find((m) => m.type === 'link') : undefined
    const url = mark?.type === 'link' ? mark.attrs.href : null
    if (url === null || node.type !== 'text') open = null
    else if (open?.url === url) {
      open.words += node.text
      open.nodes.push(i)
    } else {
      open = { url, words: node.text, nodes: [i] }
      runs.push(open)
    }
  })
  return runs
}

/** Where a link of an author's own HTML leads, if it is one that is counted: to the web. */
export function countedLink(href: string | undefined): string | null {
  const url = (href ?? '').trim()
  return /^https?:\/\/[^\s"'<>\\]+$/i.test(url) ? url : null
}

/** The links in an author's own HTML, in reading order, as they are numbered. */
export function htmlLinks(html: string): { url: string; words: string }[] {
  return findAll(parseMarkup(html), 'a').flatMap((element) => {
    const url = countedLink(attribute(element, 'href'))
    return url ? [{ url, words: textOf(element) || 'link' }] : []
  })
}
