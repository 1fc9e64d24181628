import { pickWays } from '../picks'
import { footerLast, forEverybody, hasFooter, withShares } from './changes'
import {
  MOST_COLUMNS,
  MOST_FEED_ENTRIES,
  MOST_PICKS,
  type Align,
  type Block,
  type Column,
  type LetterDocument,
  type Row,
} from './document'
import { cleanShownTo } from './shown-to'
import { isStampId } from './stamps'
import { cleanStyle } from './style'
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
  const style = cleanStyle(json.style)
  return footerLast({ version: 1, ...(style ? { style } : {}), rows })
}

/** A link a letter may carry: http(s), mailto or tel; anything else becomes empty. */
export function safeLink(href: unknown): string {
  const link = text(href, 4_000).trim()
  if (/^(https?:\/\/|mailto:|tel:)/i.test(link)) return link
  if (/^[a-z0-9-]+(\.[a-z0-9-]+)+([/?#]|$)/i.test(link)) return `https://${link}`
  return ''
}

/** A row that came from outside, for itself; null where it is none. */
export function readRow(json: unknown): Row | null {
  return cleanRow(json, new Set())[0] ?? null
}

function cleanRow(json: unknown, seen: Set<string>): Row[] {
  if (!isObject(json) || !Array.isArray(json.columns)) return []
  const given = json.columns.slice(0, MOST_COLUMNS).filter(isObject)
  const columns = given.map((column): Column => {
    const blocks = Array.isArray(column.blocks) ? column.blocks.slice(0, 100) : []
    return { share: 1, blocks: blocks.flatMap((block) => cleanBlock(block, seen)) }
  })
  if (!columns.some(({ blocks }) => blocks.length)) return []
  const shares = given.map((column) => number(column.share, 0.05, 1, 1))
  const part = cleanPart(json)
  const row: Row = {
    id: fresh(json.id, seen),
    ...part,
    ...(json.narrow === 'reverse' || json.narrow === 'keep' ? { narrow: json.narrow } : {}),
    ...(isStampId(json.stamp) ? { stamp: json.stamp } : {}),
    columns: withShares(columns, shares),
  }
  return [hasFooter(row) ? forEverybody(row) : row]
}

/** What rows and blocks have in common. */
function cleanPart(json: Json): Pick<Row, 'shownTo' | 'hidden' | 'style'> {
  const shownTo = cleanShownTo(json.shownTo)
  const style = cleanStyle(json.style)
  return {
    ...(shownTo ? { shownTo } : {}),
    ...(json.hidden === 'narrow' || json.hidden === 'wide' ? { hidden: json.hidden } : {}),
    ...(style ? { style } : {}),
  }
}

function cleanBlock(json: unknown, seen: Set<string>): Block[] {
  if (!isObject(json)) return []
  const content = cleanContent(json)
  if (!content) return []
  const block = { ...content, ...cleanPart(json), id: fresh(json.id, seen) } as Block
  return [block.kind === 'footer' ? forEverybody(block) : block]
}

/** A block's own content; null for a kind there is not. */
function cleanContent(json: Json): object | null {
  const { kind } = json
  switch (kind) {
    case 'heading':
      return {
        kind,
        level: json.level === 2 || json.level === 3 ? json.level : 1,
        align: align(json.align),
        text: cleanRichText(json.text),
      }
    case 'text':
    case 'footer':
      return { kind, text: cleanRichText(json.text) }
    case 'quote':
      return { kind, text: cleanRichText(json.text), by: text(json.by, 200) }
    case 'picture':
      return {
        kind,
        ...linkedPicture(json),
        width: number(json.width, 5, 100, 100),
        ...(typeof json.narrowWidth === 'number'
          ? { narrowWidth: number(json.narrowWidth, 5, 100, 100) }
          : {}),
      }
    case 'film':
      return { kind, ...linkedPicture(json) }
    case 'button':
      return {
        kind,
        label: text(json.label, 200),
        href: safeLink(json.href),
        align: align(json.align),
        ...(json.outline === true ? { outline: true } : {}),
        ...(json.full === true ? { full: true } : {}),
      }
    case 'divider':
      return { kind }
    case 'space':
      return { kind, height: number(json.height, 4, 200, 24) }
    case 'table':
      return { kind, head: json.head === true, cells: cleanCells(json.cells) }
    case 'social':
      return {
        kind,
        align: align(json.align),
        links: list(json.links, 12).map((link) => ({
          name: text(link.name, 60),
          href: safeLink(link.href),
        })),
      }
    case 'product':
      return {
        kind,
        src: source(json.src),
        name: text(json.name, 200),
        about: text(json.about, 1_000),
        price: text(json.price, 60),
        ...(typeof json.was === 'string' ? { was: text(json.was, 60) } : {}),
        label: text(json.label, 200),
        href: safeLink(json.href),
      }
    case 'picks':
      return {
        kind,
        by: pickWays.find(({ key }) => key === json.by)?.key ?? 'best',
        category: text(json.category, 200),
        upTo: typeof json.upTo === 'number' ? number(json.upTo, 0, 1e12, 0) : null,
        inStock: json.inStock !== false,
        many: Math.round(number(json.many, 1, MOST_PICKS, 3)),
        label: text(json.label, 200),
      }
    case 'feed':
      return {
        kind,
        url: safeLink(json.url),
        many: Math.round(number(json.many, 1, MOST_FEED_ENTRIES, 3)),
        about: json.about !== false,
        entries: list(json.entries, MOST_FEED_ENTRIES).map((entry) => ({
          title: text(entry.title, 200),
          href: safeLink(entry.href),
          about: text(entry.about, 400),
          day: /^\d{4}-\d{2}-\d{2}$/.exec(text(entry.day, 20))?.[0] ?? '',
        })),
      }
    case 'contents':
      return { kind, title: text(json.title, 200) }
    case 'code':
      return { kind, code: text(json.code, 20_000) }
    case 'html':
      return { kind, html: text(json.html, 100_000) }
    default:
      return null
  }
}

function linkedPicture(json: Json) {
  return { alt: text(json.alt, 500), href: safeLink(json.href), src: source(json.src) }
}

/** Where a picture comes from: our own pictures, or the web. */
function source(value: unknown): string {
  const src = text(value, 2_000)
  return /^(\/p\/|https?:\/\/)/.test(src) ? src : ''
}

/** Rows of equal length, at least one cell, at most 60 by 12. */
function cleanCells(value: unknown): string[][] {
  const rows = (Array.isArray(value) ? value : [])
    .slice(0, 60)
    .map((row) => (Array.isArray(row) ? row : []).slice(0, 12).map((cell) => text(cell, 1_000)))
  const width = Math.max(1, ...rows.map((row) => row.length))
  const full = rows.map((row) => [...row, ...new Array<string>(width - row.length).fill('')])
  return full.length ? full : [new Array<string>(width).fill('')]
}

function list(value: unknown, most: number): Json[] {
  return (Array.isArray(value) ? value : []).slice(0, most).filter(isObject)
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
  const words = json.type === 'text' ? text(json.text, 20_000) : ''
  if (words === '') return []
  const marks = Array.isArray(json.marks) ? json.marks.flatMap(cleanMark) : []
  return [{ type: 'text', text: words, ...(marks.length ? { marks } : {}) }]
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
