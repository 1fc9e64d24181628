import { shownEntries, type Block, type LetterDocument } from '../document'
import { htmlLinks, linkRuns } from '../links'
import { inlinesOf, type Inline, type TextNode } from '../rich-text'
import { headingsOf } from '../parts/block-parts'
import { footerWord, type Rendering } from './frame'
import { picksText } from './picked'
import { htmlText } from './raw-html'
import { slotMark } from './slots'

/** The letter as plain text with a mark for every slot, made from the document and not from the HTML. */
export function documentToText(document: LetterDocument, rendering: Rendering): string {
  const rows = document.rows.map((row) => {
    const blocks = row.columns.flatMap((column) =>
      column.blocks.map((block) => {
        const text = blockText(block, rendering)
        return text === '' ? '' : rendering.forSome(block.id, `${text}\n\n`)
      }),
    )
    const text = blocks.join('')
    return text === '' ? '' : rendering.forSome(row.id, text)
  })
  return `${rows.join('').replace(/\n+$/, '')}\n`
}

function blockText(block: Block, rendering: Rendering): string {
  switch (block.kind) {
    case 'heading': {
      const text = inlineText(inlinesOf(block.text.content), rendering)
      return block.level === 1
        ? `${text}\n${'='.repeat(Math.min(60, Math.max(3, text.length)))}`
        : `## ${text}`
    }
    case 'text':
      return nodesText(block.text.content, rendering)
    case 'quote': {
      const said = nodesText(block.text.content, rendering).replaceAll('\n', '\n> ')
      return `> ${said}${block.by ? `\n> (${block.by})` : ''}`
    }
    case 'picture': {
      const link = block.href ? `\n${rendering.nextLink()}` : ''
      return block.src ? `[${block.alt || 'Picture'}]${link}` : ''
    }
    case 'film':
      return `Play: ${block.alt || 'the film'}\n${rendering.nextLink()}`
    case 'button':
      return `${block.label}:\n${rendering.nextLink()}`
    case 'product':
      return [
        ...[block.name, block.about],
        block.price && block.was ? `${block.price} (before: ${block.was})` : block.price,
        `${block.label}: ${rendering.nextLink()}`,
      ]
        .filter(Boolean)
        .join('\n')
    case 'picks':
      return picksText(block, rendering)
    case 'feed':
      return shownEntries(block)
        .map(({ title, about }) =>
          [title, block.about ? about : '', rendering.nextLink()].filter(Boolean).join('\n'),
        )
        .join('\n\n')
    case 'divider':
      return '----------------------------------------'
    case 'space':
      return ''
    case 'table':
      return block.cells.map((cells) => cells.join(' | ')).join('\n')
    case 'social':
      return block.links.map(({ name }) => `${name}: ${rendering.nextLink()}`).join('\n')
    case 'contents':
      return [block.title, ...contentsText(rendering)].filter(Boolean).join('\n')
    case 'code':
      return block.code
    case 'html':
      // Its links have numbers, though words alone are shown here.
      htmlLinks(block.html).forEach(() => rendering.nextLink())
      return htmlText(block.html)
    case 'footer':
      return `-- \n${nodesText(block.text.content, rendering)}\n\n${rendering.postalAddress}\n\n${footerLinks(rendering)}`
  }
}

function footerLinks(rendering: Rendering): string {
  const said = (name: 'unsubscribe' | 'yourPage') => footerWord(rendering, name, (words) => words)
  const leave = `${said('unsubscribe')}: ${slotMark.leave}`
  return rendering.footer.yourPage === null
    ? leave
    : `${leave}\n${said('yourPage')}: ${slotMark.yourPage}`
}

function contentsText(rendering: Rendering): string[] {
  return headingsOf(rendering.document).map(({ id, rowId, words }) =>
    rendering.forSome(rowId, rendering.forSome(id, `- ${words(rendering, (text) => text)}`)),
  )
}

function nodesText(nodes: readonly TextNode[], rendering: Rendering): string {
  return nodes
    .map((node) =>
      node.type === 'paragraph'
        ? inlineText(node.content ?? [], rendering)
        : node.content
            .map((item, i) => {
              const sign = node.type === 'bulletList' ? '-' : `${i + 1}.`
              return `${sign} ${nodesText(item.content, rendering).replaceAll('\n', '\n  ')}`
            })
            .join('\n'),
    )
    .join('\n\n')
}

function inlineText(nodes: readonly Inline[], rendering: Rendering): string {
  const ends = new Set(linkRuns([...nodes]).map((run) => run.nodes.at(-1)!))
  return nodes
    .map((node, i) => {
      if (node.type === 'hardBreak') return '\n'
      if (node.type === 'fillIn') return rendering.fill(node.attrs.expression)
      return ends.has(i) ? `${node.text} (${rendering.nextLink()})` : node.text
    })
    .join('')
}
