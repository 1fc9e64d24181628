/** Rich text in the editor's JSON: a `doc` of paragraphs and lists. A heading is a doc of one paragraph. */
export interface RichText {
  type: 'doc'
  content: TextNode[]
}

export type TextNode =
  | { type: 'paragraph'; attrs?: { textAlign?: 'left' | 'center' | 'right' }; content?: Inline[] }
  | { type: 'bulletList' | 'orderedList'; content: { type: 'listItem'; content: TextNode[] }[] }

export type Inline =
  | { type: 'text'; text: string; marks?: Mark[] }
  | { type: 'hardBreak' }
  | { type: 'fillIn'; attrs: { expression: string } }

export type Mark =
  { type: 'bold' | 'italic' | 'strike' | 'underline' } | { type: 'link'; attrs: { href: string } }

/** Every inline node, in reading order. */
export function inlinesOf(nodes: readonly TextNode[]): Inline[] {
  return nodes.flatMap((node) =>
    node.type === 'paragraph'
      ? (node.content ?? [])
      : node.content.flatMap((item) => inlinesOf(item.content)),
  )
}

/** The text as one line, with fill-ins shown by `fill`. */
export function plainInline(
  text: RichText,
  fill: (expression: string) => string = (e) => `{{ ${e} }}`,
): string {
  const shown = (node: Inline) =>
    node.type === 'text' ? node.text : node.type === 'hardBreak' ? ' ' : fill(node.attrs.expression)
  return text.content
    .map((node) => inlinesOf([node]).map(shown).join(''))
    .filter((line) => line !== '')
    .join(' ')
}

export function isEmptyText(text: RichText): boolean {
  return plainInline(text).trim() === ''
}

/** A doc of one plain paragraph per line. */
export function richText(...lines: (string | Inline[])[]): RichText {
  return {
    type: 'doc',
    content: lines.map((line) => ({
      type: 'paragraph',
      ...(line.length
        ? { content: typeof line === 'string' ? [{ type: 'text' as const, text: line }] : line }
        : {}),
    })),
  }
}
