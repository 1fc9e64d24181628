import { linkRuns } from '../links'
import type { Inline, RichText, TextNode } from '../rich-text'
import { escapeHtml } from './escape'
import type { Rendering } from './frame'

/** Rich text as HTML with its styles inline, and a mark for every link and fill-in. */
export function richHtml(text: RichText, rendering: Rendering, accent: string): string {
  return text.content.map((node) => nodeHtml(node, rendering, accent)).join('')
}

export function inlineHtml(nodes: readonly Inline[], rendering: Rendering, accent: string): string {
  const runs = linkRuns([...nodes])
  const starts = new Set(runs.map((run) => run.nodes[0]!))
  const ends = new Set(runs.map((run) => run.nodes.at(-1)!))
  return nodes
    .map((node, i) => {
      const before = starts.has(i) ? linkTag(rendering.nextLink(), accent) : ''
      const after = ends.has(i) ? '</a>' : ''
      if (node.type === 'hardBreak') return '<br>'
      if (node.type === 'fillIn') return rendering.fill(node.attrs.expression)
      return before + markedHtml(node) + after
    })
    .join('')
}

/** The beginning of a link. Its look stands in it, for programs that strip style sheets. */
export function linkTag(to: string, accent: string, look = ''): string {
  return `<a href="${to}" style="color:${accent}${look && `;${look}`}">`
}

function nodeHtml(node: TextNode, rendering: Rendering, accent: string): string {
  if (node.type === 'paragraph') {
    const align = node.attrs?.textAlign ? `;text-align:${node.attrs.textAlign}` : ''
    const inner = inlineHtml(node.content ?? [], rendering, accent)
    return `<p style="margin:0 0 12px${align}">${inner || '&nbsp;'}</p>`
  }
  const tag = node.type === 'bulletList' ? 'ul' : 'ol'
  const items = node.content.map(
    (item) =>
      `<li>${item.content.map((inner) => nodeHtml(inner, rendering, accent)).join('')}</li>`,
  )
  return `<${tag} style="margin:0 0 12px;padding-left:22px">${items.join('')}</${tag}>`
}

const tags = { bold: 'strong', italic: 'em', strike: 's', underline: 'u' } as const

function markedHtml(node: Extract<Inline, { type: 'text' }>): string {
  return (node.marks ?? []).reduce(
    (html, mark) =>
      mark.type === 'link' ? html : `<${tags[mark.type]}>${html}</${tags[mark.type]}>`,
    escapeHtml(node.text),
  )
}
