import {
  blocksOf,
  rowOfBlock,
  shownEntries,
  type Block,
  type Feed,
  type LetterDocument,
  type Row,
} from '../document'
import { htmlLinks } from '../links'
import { isStacked, PRESSED, SMALLEST } from '../geometry'
import { inlinesOf, isEmptyText } from '../rich-text'
import { inColors, isArt } from '../art'
import type { Letterhead } from '../letterhead'
import { colorOfGround } from '../roles'
import { headingSize, type InheritedStyle } from '../style'
import { escapeHtml } from '../rendering/escape'
import { footerWord, type Rendering } from '../rendering/frame'
import { LINES, type Part, type Pressed, type Shown, type Type } from './part'
import { picksTable } from '../rendering/picked'
import { inlineHtml, linkTag, richHtml } from '../rendering/rich-html'
import { slotMark } from '../rendering/slots'

/** What a block has around it: the space at its sides and the width that is left for it, px, and what is handed down to it. */
export interface Around {
  /** At the left and at the right alike. */
  side: number
  /** How much lower than itself a picture ends beside higher ones, px. */
  lower: number
  width: number
  style: InheritedStyle
  row: Row
  look: Letterhead
}

/** A link that stands by itself is as high as what can be pressed must be; `line`: how high its text is, px. */
export const pressed = (line: number) =>
  `display:inline-block;padding:${Math.ceil((PRESSED - line) / 2)}px 0`

/** What a block is made of; nothing where there is nothing to show yet. */
export function partsOf(block: Block, rendering: Rendering, around: Around): Part[] {
  const { style } = around
  const { accent, quiet, line } = style
  const align = block.style?.align ?? 'left'
  const type: Type = { font: style.textFont, size: style.size, line: LINES, ink: style.ink }
  const room = (above: number, below: number) => roomOf(block, around, above, below)
  const text = (html: string, above = 6, below = 6): Part => ({
    kind: 'words',
    html,
    align,
    type,
    room: room(above, below),
  })
  switch (block.kind) {
    case 'heading': {
      const capitals = block.style?.capitals === true
      const size = capitals ? SMALLEST : headingSize(style.size, block.level)
      const inner = rendering.written(() =>
        inlineHtml(inlinesOf(block.text.content), rendering, accent),
      )
      // The larger, the closer its lines.
      const lines = block.level === 1 && !capitals ? 1.15 : 1.3
      const html = `<h${block.level} id="h-${block.id}" style="margin:0;font-size:${size}px;font-weight:700;line-height:${lines}${capitals ? CAPITALS : ''}">${inner}</h${block.level}>`
      const font = capitals ? style.textFont : style.headingFont
      const bold = { font, size, line: lines, ink: capitals ? accent : style.ink, weight: 700 }
      const [above, below] = block.level === 1 && !capitals ? [16, 8] : [16, 4]
      return [{ kind: 'words', html, align: block.align, type: bold, room: room(above, below) }]
    }
    case 'text':
      return [text(rendering.written(() => richHtml(block.text, rendering, accent)))]
    case 'quote': {
      const words = rendering.written(() => richHtml(block.text, rendering, accent))
      const by = mayBe(rendering, 'by', block.by, `<p style="margin:0;color:${quiet}">`, '</p>')
      const html = `<blockquote style="margin:0;padding:0 0 0 16px;border-left:3px solid ${accent}">${words}${by}</blockquote>`
      return [text(html, 10, 10)]
    }
    case 'picture': {
      const href = block.href ? rendering.nextLink() : ''
      const whole = goesToTheEdge(block, around.row) ? around.look.width : around.width
      const width = Math.round((whole * block.width) / 100)
      return picture(block, block, width, href, rendering, around)
    }
    case 'film':
      return film(block, rendering, around)
    case 'button':
      return [button(block, block, rendering.nextLink(), rendering, around)]
    case 'product': {
      const href = rendering.nextLink()
      const name = `font-weight:700;font-size:${Math.round(style.size * 1.15)}px`
      const words = [
        `<p style="margin:0 0 4px;${name}">${rendering.typed('name', block.name)}</p>`,
        mayBe(rendering, 'about', block.about, '<p style="margin:0 0 4px">', '</p>'),
        prices(block, rendering, style),
      ]
      const shown = { src: block.src, alt: block.name }
      return [
        ...picture(block, shown, around.width, href, rendering, around),
        text(words.join('')),
        button(block, { label: block.label, align: 'left' }, href, rendering, around),
      ]
    }
    case 'picks': {
      const html = picksTable(block, rendering, around.width, style)
      return [{ kind: 'rows', html, type: { ...type, line: ROW_LINES }, room: room(8, 8) }]
    }
    case 'feed':
      return block.entries.length ? [text(feed(block, rendering, style), 0, 8)] : []
    case 'divider':
      return [{ kind: 'line', color: line, room: room(14, 14) }]
    case 'space':
      return [{ kind: 'gap', height: block.height, room: { above: 0, side: 0, below: 0 } }]
    case 'table': {
      const html = table(block, rendering, line)
      return [{ kind: 'rows', html, type: { ...type, line: ROW_LINES }, room: room(8, 8) }]
    }
    case 'social': {
      const links = block.links.map(
        ({ name }) =>
          `${linkTag(rendering.nextLink(), accent, pressed(style.size * LINES))}${escapeHtml(name)}</a>`,
      )
      const html = links.join(' &nbsp;·&nbsp; ')
      return [{ kind: 'words', html, align: block.align, type, room: room(0, 0) }]
    }
    case 'contents':
      return [text(contents(rendering, block.title, style), 10, 10)]
    case 'code':
      return [
        text(
          `<pre style="margin:0;padding:12px;background:#f3f4ef;font-family:'Courier New',Courier,monospace;font-size:13px;line-height:1.5;white-space:pre-wrap">${rendering.typed('code', block.code)}</pre>`,
        ),
      ]
    case 'html': {
      const marks = new Map(htmlLinks(block.html).map(({ url }) => [url, rendering.nextLink()]))
      return [text(rendering.ownHtml(block.html, (url) => marks.get(url) ?? url))]
    }
    case 'footer': {
      const fine: Type = { ...type, size: SMALLEST, line: 1.5, ink: quiet }
      const address = escapeHtml(rendering.postalAddress).replace(/\n/g, '<br>')
      const small = pressed(SMALLEST * 1.5)
      const link = (to: string, name: 'unsubscribe' | 'yourPage') =>
        `<a href="${to}" style="color:${quiet};${small}">${footerWord(rendering, name, escapeHtml)}</a>`
      const links = [
        link(slotMark.leave, 'unsubscribe'),
        ...(rendering.footer.yourPage === null ? [] : [link(slotMark.yourPage, 'yourPage')]),
      ].join(' &nbsp;·&nbsp; ')
      const html = `${rendering.written(() => richHtml(block.text, rendering, accent))}<p style="margin:0 0 12px">${address}</p><p style="margin:0">${links}</p>`
      return [{ kind: 'words', html, align, type: fine, room: room(22, 26) }]
    }
  }
}

/** How high a line of a table is. */
const ROW_LINES = '22px'

/** Letters over a heading stand apart. */
const CAPITALS = ';text-transform:uppercase;letter-spacing:0.08em'

/** The space around a block and what is behind it. */
function roomOf(block: Block, { side, look }: Around, above: number, below: number): Part['room'] {
  const { space } = block.style ?? {}
  const ground = colorOfGround(look, block.style?.ground)
  return { above: space ?? above, side, below: space ?? below, ...(ground ? { ground } : {}) }
}

/** A line around a picture or a button. */
function border({ style }: Block, { style: { line } }: Around): string {
  return style?.border ? `${style.border}px solid ${style.borderColor ?? line}` : ''
}

/** A line of words that may be missing; there is a place for it where it can be written. */
function mayBe(rendering: Rendering, name: string, value: string, open: string, close: string) {
  const inner = rendering.typed(name, value, true)
  return inner === '' ? '' : `${open}${inner}${close}`
}

function picture(
  block: Block,
  { src, alt }: { src: string; alt: string },
  width: number,
  href: string,
  { url }: Rendering,
  around: Around,
  below = 8,
  sign = '',
): Shown[] {
  if (src === '') return []
  const isEdge = goesToTheEdge(block, around.row)
  const from = isEdge ? { ...around, side: 0 } : around
  const room = roomOf(block, from, isEdge ? 0 : 8, isEdge ? 0 : below)
  return [
    {
      kind: 'picture',
      src: src.startsWith('/') ? url + inWidth(src, width, around.look) + sign : src,
      alt,
      width,
      corner: isEdge ? 0 : around.style.corner,
      border: border(block, around),
      align: block.style?.align ?? 'left',
      href,
      fluid: isStacked(around.row) && width === around.width,
      lower: around.lower,
      room: { ...room, below: room.below + around.lower },
    },
  ]
}

/** Whether a picture is as wide as the paper. */
const goesToTheEdge = (block: Block, row: Row) =>
  block.style?.edge === true && row.columns.length === 1

/**
 * Our own pictures are made to the width in which they are shown, sharp on fine screens; those that are drawn, in the colours of
 * the letterhead.
 */
export function inWidth(src: string, width: number, look: Letterhead): string {
  const name = isArt(src) ? inColors(src, look) : src
  return `${name}-${Math.min(1200, Math.ceil((width * 2) / 50) * 50)}`
}

/** What it costs, and beside it, struck out, what it cost before. */
function prices(
  { price, was }: Extract<Block, { kind: 'product' }>,
  rendering: Rendering,
  { accent, quiet }: InheritedStyle,
): string {
  if (was === undefined) return mayBe(rendering, 'price', price, '<p style="margin:0">', '</p>')
  const now = rendering.typed('price', price, true)
  const before = rendering.typed('was', was, true)
  return `<p style="margin:0"><b style="color:${accent}">${now}</b> <s style="color:${quiet}">${before}</s></p>`
}

/** Our own pictures get a play sign; on others a bar under them says what they are. */
function film(block: Extract<Block, { kind: 'film' }>, rendering: Rendering, around: Around) {
  const href = rendering.nextLink()
  const { style } = around
  const width = goesToTheEdge(block, around.row) ? around.look.width : around.width
  if (block.src.startsWith('/')) {
    const shown = { src: block.src, alt: `Play: ${block.alt || 'the film'}` }
    return picture(block, shown, width, href, rendering, around, 8, '-play')
  }
  const bar: Part = {
    kind: 'words',
    html: `<p style="margin:0;text-align:center"><a href="${href}" style="color:${style.onAccent};text-decoration:none;font-weight:700;display:block;padding:10px 0">&#9654; Play: ${escapeHtml(block.alt || 'the film')}</a></p>`,
    align: 'left',
    type: { font: style.textFont, size: style.size, line: LINES, ink: style.ink },
    room: { ...roomOf(block, around, 0, 0), ground: style.accent },
  }
  return [...picture(block, block, width, href, rendering, around, 0), bar]
}

function button(
  block: Block,
  { label, align }: { label: string; align: Pressed['align'] },
  href: string,
  rendering: Rendering,
  around: Around,
): Pressed {
  const { accent, onAccent, textFont, size, corner, ink } = around.style
  const isOutline = 'outline' in block && block.outline === true
  return {
    kind: 'button',
    html: rendering.typed('label', label),
    align,
    href,
    type: { font: textFont, size, line: 1.2, ink: isOutline ? ink : onAccent, weight: 700 },
    accent: isOutline ? null : accent,
    corner,
    border: border(block, around) || (isOutline ? `1px solid ${ink}` : ''),
    full: 'full' in block && block.full === true,
    within: [Math.max(12, Math.ceil((PRESSED - size * 1.2) / 2)), 22],
    room: roomOf(block, around, 12, 12),
  }
}

function table(
  block: Extract<Block, { kind: 'table' }>,
  rendering: Rendering,
  line: string,
): string {
  const rows = block.cells.map((cells, i) => {
    const tag = block.head && i === 0 ? 'th' : 'td'
    const look = `padding:6px 10px 6px 0;border-bottom:1px solid ${line};text-align:left;word-break:normal;overflow-wrap:break-word`
    const written = cells.map(
      (cell, j) =>
        `<${tag} style="${look}">${rendering.typed(`${i} ${j}`, cell) || '&nbsp;'}</${tag}>`,
    )
    return `<tr>${written.join('')}</tr>`
  })
  return rows.join('')
}

/** Each entry: its title as the link, and how it begins. */
function feed(block: Feed, rendering: Rendering, { accent, size }: InheritedStyle): string {
  // What keeps entries apart belongs to the link above which it stands.
  const look = `display:inline-block;padding:${Math.ceil(PRESSED - size * LINES - 3)}px 0 3px`
  return shownEntries(block)
    .map(({ title, about }) => {
      const link = `${linkTag(rendering.nextLink(), accent, look)}<b>${escapeHtml(title)}</b></a>`
      const words = block.about && about ? `<br>${escapeHtml(about)}` : ''
      return `<p style="margin:0">${link}${words}</p>`
    })
    .join('')
}

/** The headings that have words, each for those who get the heading. */
function contents(rendering: Rendering, title: string, { accent, size }: InheritedStyle): string {
  const items = headingsOf(rendering.document).map(({ id, words, rowId }) =>
    rendering.forSome(
      rowId,
      rendering.forSome(
        id,
        `<li><a href="#h-${id}" style="color:${accent};${pressed(size * LINES)}">${words(rendering)}</a></li>`,
      ),
    ),
  )
  const head = title ? `<p style="margin:0 0 6px;font-weight:700">${escapeHtml(title)}</p>` : ''
  return `${head}<ul style="margin:0;padding-left:22px">${items.join('')}</ul>`
}

/** Headings with words, and those words without their links. */
export function headingsOf(document: LetterDocument) {
  return blocksOf(document).flatMap((block) => {
    if (block.kind !== 'heading' || isEmptyText(block.text)) return []
    const words = ({ fill }: Pick<Rendering, 'fill'>, escape = escapeHtml) =>
      inlinesOf(block.text.content)
        .map((node) =>
          node.type === 'text'
            ? escape(node.text)
            : node.type === 'fillIn'
              ? fill(node.attrs.expression)
              : ' ',
        )
        .join('')
    return [{ id: block.id, rowId: rowOfBlock(document, block.id)!.id, words }]
  })
}
