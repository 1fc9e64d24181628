import type { Align, Block, LetterDocument, Row } from './document'
import { richText, type Inline, type Mark, type RichText, type TextNode } from './rich-text'

type Json = Record<string, unknown>

/**
 * Reads a document that came from outside. What a letter can't hold is dropped, so that no script,
 * handler or foreign element ever gets into one; null where it is no document at all.
 */
export function cleanDocument(json: unknown): LetterDocument | null {
  if (!isObject(json) || json.version !== 1 || !Array.isArray(json.rows)) return null
  const seen = new Set<string>()
  const rows = json.rows.slice(0, 500).flatMap((row) => cleanRow(row, seen))
  return { version: 1, rows }
}

/** A link a letter may carry: http(s), mailto or tel; anything else becomes empty. */
export function safeLink(href: unknown): string {
  const link = text(href, 4_000).trim()
  if (/^(https?:\/\/|mailto:|tel:)/i.test(link)) return link
  if (/^[a-z0-9-]+(\.[a-z0-9-]+)+([/?#]|$)/i.test(link)) return `https://${link}`
  return ''
}

function cleanRow(json: unknown, seen: Set<string>): Row[] {
  if (!isObject(json) || !Array.isArray(json.columns)) return []
  const columns = json.columns.slice(0, 4).flatMap((column) => {
    if (!isObject(column) || !Array.isArray(column.blocks)) return []
    const blocks = column.blocks.slice(0, 100).flatMap((block) => cleanBlock(block, seen))
    return blocks.length ? [{ share: number(column.share, 0.05, 1, 1), blocks }] : []
  })
  const sum = columns.reduce((total, column) => total + column.share, 0)
  const shared = columns.map((column) => ({ ...column, share: column.share / sum }))
  return shared.length ? [{ id: fresh(json.id, seen), columns: shared }] : []
}

function cleanBlock(json: unknown, seen: Set<string>): Block[] {
  if (!isObject(json)) return []
  const kind = json.kind
  const id = fresh(json.id, seen)
  switch (kind) {
    case 'heading':
      return [
        {
          id,
          kind,
          level: json.level === 2 ? 2 : 1,
          align: align(json.align),
          text: cleanRichText(json.text),
        },
      ]
    case 'text':
      return [{ id, kind, text: cleanRichText(json.text) }]
    case 'picture':
      return [
        {
          id,
          kind,
          alt: text(json.alt, 500),
          href: safeLink(json.href),
          src: /^(\/p\/|https?:\/\/)/.test(text(json.src, 2_000)) ? text(json.src, 2_000) : '',
          width: number(json.width, 5, 100, 100),
        },
      ]
    case 'button':
      return [
        {
          id,
          kind,
          label: text(json.label, 200),
          href: safeLink(json.href),
          align: align(json.align),
        },
      ]
    case 'divider':
      return [{ id, kind }]
    case 'space':
      return [{ id, kind, height: number(json.height, 4, 200, 24) }]
    case 'footer':
      return [{ id, kind, text: cleanRichText(json.text) }]
    default:
      return []
  }
}

/** Rich text with nothing in it but what {@link RichText} allows. */
export function cleanRichText(json: unknown): RichText {
  if (!isObject(json) || !Array.isArray(json.content)) return richText('')
  const content = json.content.slice(0, 2_000).flatMap((node) => cleanNode(node, 0))
  return content.length ? { type: 'doc', content } : richText('')
}

function cleanNode(json: unknown, depth: number): TextNode[] {
  if (!isObject(json) || depth > 6) return []
  if (json.type === 'paragraph' || json.type === 'heading') {
    const content = Array.isArray(json.content) ? json.content.flatMap(cleanInline) : []
    const to = isObject(json.attrs) ? json.attrs.textAlign : null
    return [
      {
        type: 'paragraph',
        ...(to === 'center' || to === 'right' ? { attrs: { textAlign: to } } : {}),
        ...(content.length ? { content } : {}),
      },
    ]
  }
  if ((json.type === 'bulletList' || json.type === 'orderedList') && Array.isArray(json.content)) {
    const items = json.content.flatMap((item) => {
      if (!isObject(item) || !Array.isArray(item.content)) return []
      const content = item.content.flatMap((node) => cleanNode(node, depth + 1))
      return content.length ? [{ type: 'listItem' as const, content }] : []
    })
    return items.length ? [{ type: json.type, content: items }] : []
  }
  return []
}

function cleanInline(json: unknown): Inline[] {
  if (!isObject(json)) return []
  if (json.type === 'hardBreak') return [{ type: 'hardBreak' }]
  if (json.type === 'fillIn' && isObject(json.attrs)) {
    const expression = text(json.attrs.expression, 300).replace(/[{}%]/g, '')
    return expression.trim() ? [{ type: 'fillIn', attrs: { expression } }] : []
  }
  if (json.type !== 'text' || typeof json.text !== 'string' || json.text === '') return []
  const marks = Array.isArray(json.marks) ? json.marks.flatMap(cleanMark) : []
  return [{ type: 'text', text: text(json.text, 20_000), ...(marks.length ? { marks } : {}) }]
}

function cleanMark(json: unknown): Mark[] {
  if (!isObject(json)) return []
  switch (json.type) {
    case 'bold':
    case 'italic':
    case 'strike':
    case 'underline':
      return [{ type: json.type }]
    case 'link':
      return [
        { type: 'link', attrs: { href: isObject(json.attrs) ? safeLink(json.attrs.href) : '' } },
      ]
    default:
      return []
  }
}

function isObject(json: unknown): json is Json {
  return typeof json === 'object' && json !== null && !Array.isArray(json)
}

/** Private-use characters mark slots while a letter is compiled, so no text may hold them. */
function text(value: unknown, longest: number): string {
  if (typeof value !== 'string') return ''
  return value
    .slice(0, longest)
    .normalize('NFC')
    .replace(/[\uE000-\uF8FF\u0000]/g, '')
}

function number(value: unknown, min: number, max: number, otherwise: number): number {
  return typeof value === 'number' && Number.isFinite(value)
    ? Math.min(max, Math.max(min, value))
    : otherwise
}

function align(value: unknown): Align {
  return value === 'center' || value === 'right' ? value : 'left'
}

function fresh(value: unknown, seen: Set<string>): string {
  let id = typeof value === 'string' && /^[\w-]{1,40}$/.test(value) ? value : 'b'
  while (seen.has(id)) id += 'x'
  seen.add(id)
  return id
}
