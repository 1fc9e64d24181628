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
import { headingSize, type InheritedStyle } from '../style'
import { escapeHtml } from './escape'
import type { Rendering } from './frame'
import { classes, narrowClass } from './narrow'
import { picksTable } from './picked'
import { cleanHtml } from './raw-html'
import { inlineHtml, linkTag, richHtml } from './rich-html'
import { slotMark } from './slots'

/** What a block has around it: the space at its sides and the width that is left for it, px, and what is handed down to it. */
export interface Around {
  /** At the left and at the right alike. */
  side: number
  /** How much lower than itself a picture ends beside higher ones, px. */
  lower: number
  width: number
  style: InheritedStyle
  document: LetterDocument
  row: Row
}

/** A link that stands by itself is as high as what can be pressed must be; `line`: how high its text is, px. */
export const pressed = (line: number) =>
  `display:inline-block;padding:${Math.ceil((PRESSED - line) / 2)}px 0`

const LINE = '#dfe3d9'
/** How many times as high as its letters a line of text is. */
export const LINES = 1.55
const QUIET = '#5b6459'

/** A block as MJML. */
export function blockToMjml(block: Block, rendering: Rendering, around: Around): string {
  const { style } = around
  const { accent } = style
  const text = (more: string, html: string, above = 6, below = 6) =>
    `<mj-text${common(block, around, above, below)} color="${style.ink}" font-family="${escapeHtml(style.textFont)}" font-size="${style.size}px"${more}>${html}</mj-text>`
  switch (block.kind) {
    case 'heading': {
      const size = headingSize(style.size, block.level)
      const inner = inlineHtml(inlinesOf(block.text.content), rendering, accent)
      const font = escapeHtml(style.headingFont)
      return `<mj-text${common(block, around, 16, 6)} align="${block.align}" color="${style.ink}" font-family="${font}" font-size="${size}px" line-height="1.25" font-weight="700"><h${block.level} id="h-${block.id}" style="margin:0;font-size:${size}px;font-weight:700;line-height:1.25">${inner}</h${block.level}></mj-text>`
    }
    case 'text':
      return text('', richHtml(block.text, rendering, accent))
    case 'quote': {
      const by = block.by ? `<p style="margin:0;color:${QUIET}">${escapeHtml(block.by)}</p>` : ''
      return text(
        '',
        `<blockquote style="margin:0;padding:0 0 0 16px;border-left:3px solid ${accent}">${richHtml(block.text, rendering, accent)}${by}</blockquote>`,
        10,
        10,
      )
    }
    case 'picture': {
      const href = block.href ? rendering.nextLink() : ''
      const width = Math.round((around.width * block.width) / 100)
      return picture(block, block, width, href, rendering, around)
    }
    case 'film': {
      const href = rendering.nextLink()
      // Our own pictures get a play sign; on others a bar under them says what they are.
      if (block.src.startsWith('/')) {
        const shown = { src: block.src, alt: `Play: ${block.alt || 'the film'}` }
        return picture(block, shown, around.width, href, rendering, around, 8, '-play')
      }
      const bar = `<p style="margin:0;text-align:center"><a href="${href}" style="color:#ffffff;text-decoration:none;font-weight:700;display:block;padding:10px 0">&#9654; Play: ${escapeHtml(block.alt || 'the film')}</a></p>`
      return `${picture(block, block, around.width, href, rendering, around, 0)}${text(` container-background-color="${accent}"`, bar, 0, 0)}`
    }
    case 'button':
      return button(block, block, rendering.nextLink(), around)
    case 'product': {
      const href = rendering.nextLink()
      const words = [
        `<p style="margin:0 0 4px;font-weight:700;font-size:${Math.round(style.size * 1.15)}px">${escapeHtml(block.name)}</p>`,
        block.about ? `<p style="margin:0 0 4px">${escapeHtml(block.about)}</p>` : '',
        block.price ? `<p style="margin:0">${escapeHtml(block.price)}</p>` : '',
      ]
      const shown = { src: block.src, alt: block.name }
      return [
        picture(block, shown, around.width, href, rendering, around),
        text('', words.join('')),
        button(block, { label: block.label, align: 'left' }, href, around),
      ].join('\n')
    }
    case 'picks':
      return `<mj-table${common(block, around, 8, 8)} color="${style.ink}" font-family="${escapeHtml(style.textFont)}" font-size="${style.size}px">${picksTable(block, rendering, around.width, style)}</mj-table>`
    case 'feed':
      return block.entries.length ? text('', feed(block, rendering, style), 0, 8) : ''
    case 'divider':
      return `<mj-divider border-width="1px" border-color="${LINE}"${common(block, around, 14, 14)} />`
    case 'space':
      return `<mj-spacer height="${block.height}px"${classesOf(block, around)} />`
    case 'table':
      return table(block, around)
    case 'social':
      return text(
        ` align="${block.align}"`,
        block.links
          .map(
            ({ name }) =>
              `${linkTag(rendering.nextLink(), accent, pressed(style.size * LINES))}${escapeHtml(name)}</a>`,
          )
          .join(' &nbsp;·&nbsp; '),
        0,
        0,
      )
    case 'contents':
      return text('', contents(rendering, block.title, style), 10, 10)
    case 'code':
      return text(
        '',
        `<pre style="margin:0;padding:12px;background:#f3f4ef;font-family:'Courier New',Courier,monospace;font-size:13px;line-height:1.5;white-space:pre-wrap">${escapeHtml(block.code)}</pre>`,
      )
    case 'html': {
      const marks = new Map(htmlLinks(block.html).map(({ url }) => [url, rendering.nextLink()]))
      return text(
        '',
        cleanHtml(block.html, (url) => marks.get(url) ?? url),
      )
    }
    case 'footer':
      return `<mj-text${common(block, around, 22, 26)} font-size="${SMALLEST}px" line-height="1.5" color="${QUIET}">${richHtml(block.text, rendering, accent)}<p>${escapeHtml(rendering.postalAddress).replace(/\n/g, '<br>')}</p><p style="margin:0"><a href="${slotMark.leave}" style="color:${QUIET};${pressed(SMALLEST * 1.5)}">Unsubscribe from ${escapeHtml(rendering.listName)}</a></p></mj-text>`
  }
}

/** Padding, ground and class, which every kind of block may have. */
function common(block: Block, around: Around, above: number, below: number, lower = 0): string {
  const { side } = around
  const space = block.style?.space
  const [top, bottom] = space === undefined ? [above, below] : [space, space]
  const end = bottom + lower
  const ground = block.style?.ground ? ` container-background-color="${block.style.ground}"` : ''
  return ` padding="${top}px ${side}px ${end}px"${ground}${classesOf(block, around, lower > 0 ? `ends-${bottom}` : '')}`
}

/** A line around a picture or a button. */
function border({ style }: Block): string {
  return style?.border ? ` border="${style.border}px solid ${style.borderColor ?? LINE}"` : ''
}

function classesOf(block: Block, { document, row }: Around, more = ''): string {
  const hidden = block.hidden ? `not-${block.hidden}` : ''
  return classes([hidden, narrowClass(document, block, row), more])
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
): string {
  if (src === '') return ''
  const whole = src.startsWith('/') ? url + inWidth(src, width) + sign : src
  const link = href ? ` href="${href}"` : ''
  const fluid = isStacked(around.row) && width === around.width ? ' fluid-on-mobile="true"' : ''
  return `<mj-image src="${escapeHtml(whole)}" alt="${escapeHtml(alt)}" width="${width}px" align="left" border-radius="${around.style.corner}px"${fluid}${border(block)}${common(block, around, 8, below, around.lower)}${link} />`
}

/** Our own pictures are made to the width in which they are shown, sharp on fine screens. */
export function inWidth(src: string, width: number): string {
  return `${src}-${Math.min(1200, Math.ceil((width * 2) / 50) * 50)}`
}

function button(
  block: Block,
  { label, align }: { label: string; align: string },
  href: string,
  around: Around,
): string {
  const { accent, textFont, size, corner } = around.style
  const within = Math.max(12, Math.ceil((PRESSED - size * 1.2) / 2))
  return `<mj-button align="${align}" href="${href}" background-color="${accent}" color="#ffffff" font-family="${escapeHtml(textFont)}" font-size="${size}px" border-radius="${corner}px"${border(block)} inner-padding="${within}px 22px"${common(block, around, 12, 12)}>${escapeHtml(label)}</mj-button>`
}

function table(block: Extract<Block, { kind: 'table' }>, around: Around): string {
  const { style } = around
  const rows = block.cells.map((cells, i) => {
    const tag = block.head && i === 0 ? 'th' : 'td'
    const look = `padding:6px 10px 6px 0;border-bottom:1px solid ${LINE};text-align:left`
    return `<tr>${cells.map((cell) => `<${tag} style="${look}">${escapeHtml(cell)}</${tag}>`).join('')}</tr>`
  })
  return `<mj-table${common(block, around, 8, 8)} color="${style.ink}" font-family="${escapeHtml(style.textFont)}" font-size="${style.size}px">${rows.join('')}</mj-table>`
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
