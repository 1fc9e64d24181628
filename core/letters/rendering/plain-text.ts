import type { Block, LetterDocument } from '../document'
import { linkRuns } from '../links'
import { inlinesOf, type Inline, type TextNode } from '../rich-text'
import { slotMark } from './slots'
import type { RenderingFrame } from './to-mjml'

/** The letter as plain text with a mark for every slot, made from the document and not from the HTML. */
export function documentToText(document: LetterDocument, frame: RenderingFrame): string {
  const links = { next: 0 }
  const parts = document.rows.flatMap((row) =>
    row.columns.flatMap((column) => column.blocks.map((block) => blockText(block, frame, links))),
  )
  return `${parts.filter((part) => part !== '').join('\n\n')}\n`
}

function blockText(block: Block, frame: RenderingFrame, links: { next: number }): string {
  switch (block.kind) {
    case 'heading': {
      const text = inlineText(inlinesOf(block.text.content), frame, links)
      return block.level === 1
        ? `${text}\n${'='.repeat(Math.min(60, Math.max(3, text.length)))}`
        : `## ${text}`
    }
    case 'text':
      return nodesText(block.text.content, frame, links)
    case 'picture': {
      const link = block.href ? `\n${slotMark.link(links.next++)}` : ''
      return block.src ? `[${block.alt || 'Picture'}]${link}` : ''
    }
    case 'button':
      return `${block.label}:\n${slotMark.link(links.next++)}`
    case 'divider':
      return '----------------------------------------'
    case 'space':
      return ''
    case 'footer':
      return `-- \n${nodesText(block.text.content, frame, links)}\n\n${frame.postalAddress}\n\nLeave ${frame.listName}: ${slotMark.leave}`
  }
}

function nodesText(
  nodes: readonly TextNode[],
  frame: RenderingFrame,
  links: { next: number },
): string {
  return nodes
    .map((node) =>
      node.type === 'paragraph'
        ? inlineText(node.content ?? [], frame, links)
        : node.content
            .map((item, i) => {
              const sign = node.type === 'bulletList' ? '-' : `${i + 1}.`
              return `${sign} ${nodesText(item.content, frame, links).replaceAll('\n', '\n  ')}`
            })
            .join('\n'),
    )
    .join('\n\n')
}

function inlineText(
  nodes: readonly Inline[],
  frame: RenderingFrame,
  links: { next: number },
): string {
  const ends = new Set(linkRuns([...nodes]).map((run) => run.nodes.at(-1)!))
  return nodes
    .map((node, i) => {
      if (node.type === 'hardBreak') return '\n'
      if (node.type === 'fillIn') return slotMark.fill(frame.slotOf(node.attrs.expression))
      return ends.has(i) ? `${node.text} (${slotMark.link(links.next++)})` : node.text
    })
    .join('')
}
