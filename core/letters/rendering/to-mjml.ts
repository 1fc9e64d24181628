import type { Block, LetterDocument, Row } from '../document'
import type { Letterhead } from '../letterhead'
import { linkRuns } from '../links'
import { inlinesOf, type Inline, type RichText, type TextNode } from '../rich-text'
import { slotMark } from './slots'

/** What the rendering of a letter needs to know besides the letter. */
export interface RenderingFrame {
  subject: string
  previewText: string
  letterhead: Letterhead
  /** Lines of the sender's postal address, for the footer. */
  postalAddress: string
  listName: string
  /** Public address of this installation, for pictures of its own. */
  url: string
  /** The number of a fill-in's slot. */
  slotOf: (expression: string) => number
}

/** The letter as MJML, with a mark for every slot. Same document, same text. */
export function documentToMjml(document: LetterDocument, frame: RenderingFrame): string {
  const { letterhead: look } = frame
  const links = { next: 0 }
  const rows = document.rows.map((row) => rowToMjml(row, frame, links)).join('\n')
  return `<mjml lang="en"><mj-head>
<mj-title>${escapeHtml(frame.subject)}</mj-title>
<mj-preview>${frame.previewText}</mj-preview>
<mj-attributes>
<mj-all font-family="${escapeHtml(look.textFont)}" color="${look.ink}" />
<mj-text font-size="15px" line-height="1.55" padding="6px 28px" />
<mj-section padding="0" background-color="${look.paper}" />
<mj-button background-color="${look.accent}" color="#ffffff" border-radius="4px" font-size="15px" inner-padding="12px 22px" padding="12px 28px" />
<mj-image padding="8px 28px" />
</mj-attributes>
<mj-style>a { color: ${look.accent}; } p { margin: 0 0 12px; } ul, ol { margin: 0 0 12px; padding-left: 22px; }</mj-style>
</mj-head>
<mj-body width="${look.width}px" background-color="${look.ground}">
<mj-section padding="10px 0 0"><mj-column></mj-column></mj-section>
${rows}
<mj-section padding="0"><mj-column><mj-image src="${slotMark.opened}" alt="" width="1px" height="1px" padding="0" /></mj-column></mj-section>
</mj-body></mjml>`
}

function rowToMjml(row: Row, frame: RenderingFrame, links: { next: number }): string {
  const columns = row.columns.map((column) => {
    const blocks = column.blocks.map((block) => blockToMjml(block, frame, links)).join('\n')
    return `<mj-column width="${Math.round(column.share * 10_000) / 100}%">${blocks}</mj-column>`
  })
  return `<mj-section>${columns.join('')}</mj-section>`
}

function blockToMjml(block: Block, frame: RenderingFrame, links: { next: number }): string {
  const { letterhead: look } = frame
  switch (block.kind) {
    case 'heading': {
      const size = block.level === 1 ? 27 : 20
      const inner = inlineHtml(inlinesOf(block.text.content), frame, links)
      return `<mj-text align="${block.align}" font-family="${escapeHtml(look.headingFont)}" font-size="${size}px" line-height="1.25" font-weight="700" padding="16px 28px 6px"><h${block.level} style="margin:0;font-size:${size}px;font-weight:700;line-height:1.25">${inner}</h${block.level}></mj-text>`
    }
    case 'text':
      return `<mj-text>${richHtml(block.text, frame, links)}</mj-text>`
    case 'picture': {
      if (block.src === '') return ''
      const src = block.src.startsWith('/') ? frame.url + block.src : block.src
      const href = block.href ? ` href="${slotMark.link(links.next++)}"` : ''
      const width = Math.round(((look.width - 56) * block.width) / 100)
      return `<mj-image src="${escapeHtml(src)}" alt="${escapeHtml(block.alt)}" width="${width}px" align="left"${href} />`
    }
    case 'button':
      return `<mj-button align="${block.align}" href="${slotMark.link(links.next++)}">${escapeHtml(block.label)}</mj-button>`
    case 'divider':
      return `<mj-divider border-width="1px" border-color="#dfe3d9" padding="14px 28px" />`
    case 'space':
      return `<mj-spacer height="${block.height}px" />`
    case 'footer':
      return `<mj-text font-size="12px" line-height="1.5" color="#5b6459" padding="22px 28px 26px">${richHtml(block.text, frame, links)}<p>${escapeHtml(frame.postalAddress).replace(/\n/g, '<br>')}</p><p style="margin:0"><a href="${slotMark.leave}" style="color:#5b6459">Leave ${escapeHtml(frame.listName)}</a></p></mj-text>`
  }
}

function richHtml(text: RichText, frame: RenderingFrame, links: { next: number }): string {
  return text.content.map((node) => nodeHtml(node, frame, links)).join('')
}

function nodeHtml(node: TextNode, frame: RenderingFrame, links: { next: number }): string {
  if (node.type === 'paragraph') {
    const align = node.attrs?.textAlign ? `;text-align:${node.attrs.textAlign}` : ''
    return `<p style="margin:0 0 12px${align}">${inlineHtml(node.content ?? [], frame, links) || '&nbsp;'}</p>`
  }
  const tag = node.type === 'bulletList' ? 'ul' : 'ol'
  const items = node.content.map(
    (item) => `<li>${item.content.map((inner) => nodeHtml(inner, frame, links)).join('')}</li>`,
  )
  return `<${tag} style="margin:0 0 12px;padding-left:22px">${items.join('')}</${tag}>`
}

function inlineHtml(
  nodes: readonly Inline[],
  frame: RenderingFrame,
  links: { next: number },
): string {
  const runs = linkRuns([...nodes])
  const starts = new Map(runs.map((run) => [run.nodes[0]!, run]))
  const ends = new Set(runs.map((run) => run.nodes.at(-1)!))
  return nodes
    .map((node, i) => {
      const before = starts.has(i) ? `<a href="${slotMark.link(links.next++)}">` : ''
      const after = ends.has(i) ? '</a>' : ''
      if (node.type === 'hardBreak') return '<br>'
      if (node.type === 'fillIn') return slotMark.fill(frame.slotOf(node.attrs.expression))
      return before + markedHtml(node) + after
    })
    .join('')
}

const tags = { bold: 'strong', italic: 'em', strike: 's', underline: 'u' } as const

function markedHtml(node: Extract<Inline, { type: 'text' }>): string {
  return (node.marks ?? []).reduce(
    (html, mark) =>
      mark.type === 'link' ? html : `<${tags[mark.type]}>${html}</${tags[mark.type]}>`,
    escapeHtml(node.text),
  )
}

export function escapeHtml(text: string): string {
  return text
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;')
    .replaceAll("'", '&#39;')
}
