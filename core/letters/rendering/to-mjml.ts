import type { Block, LetterDocument, Row } from '../document'
import { percentOf, roomIn, SIDE, sidesOf } from '../geometry'
import { colorOfGround } from '../roles'
import { inheritedStyle, type InheritedStyle } from '../style'
import { inWidth, partsOf, type Around } from '../parts/block-parts'
import { escapeHtml } from './escape'
import { evened } from '../parts'
import { classes, narrowClass, narrowRules, narrowSides, SIDES, SIDES_AROUND } from './narrow'
import type { Rendering } from './frame'
import { partToMjml } from './part-mjml'
import { LINES } from '../parts/part'
import { slotMark } from './slots'

/** Up to this width a screen is narrow, px. */
const NARROW = 480

/** The letter as MJML, with a mark for every slot. Same document, same text. */
export function documentToMjml(
  document: LetterDocument,
  rendering: Rendering,
  title: string,
  previewText: string,
): string {
  const { letterhead: look, footer } = rendering
  const letter = inheritedStyle(look, document.style)
  const rows = document.rows.map((row) => rowToMjml(row, rendering)).join('\n')
  return `<mjml lang="${escapeHtml(footer.language)}"><mj-head>
<mj-title>${escapeHtml(title)}</mj-title>
<mj-preview>${previewText}</mj-preview>
<mj-breakpoint width="${NARROW}px" />
<mj-attributes>
<mj-all font-family="${escapeHtml(letter.textFont)}" color="${letter.ink}" />
<mj-text font-size="${letter.size}px" line-height="${LINES}" padding="6px ${SIDE}px" />
<mj-section padding="0" background-color="${look.paper}" />
</mj-attributes>
<mj-style>${styleSheet(rendering, letter, rows)}</mj-style>
</mj-head>
<mj-body width="${look.width}px" background-color="${colorOfGround(look, document.style?.ground) ?? look.ground}">
<mj-section padding="10px 0 0"><mj-column></mj-column></mj-section>
${logo(rendering)}${rows}
<mj-section padding="0"><mj-column><mj-image src="${slotMark.opened}" alt="" width="1px" height="1px" padding="0" /></mj-column></mj-section>
</mj-body></mjml>`
}

/** What needs a style sheet; programs that strip it show everything, one column beside the other. */
function styleSheet(rendering: Rendering, letter: InheritedStyle, rows: string): string {
  const { document } = rendering
  const hidden = JSON.stringify(document).includes('"hidden":')
  // A picture that ends lower beside a higher one need not where it stands alone.
  const alone = [...new Set(rows.match(/(?<=\bends-)\d+/g))].map(
    (px) => `.ends-${px} { padding-bottom: ${px}px !important; }`,
  )
  const narrow = [...narrowSides, ...alone, ...narrowRules(document)]
  const whole = `a { color: ${letter.accent}; } p { margin: 0 0 12px; } ul, ol { margin: 0 0 12px; padding-left: 22px; }`
  const onNarrow = [...(hidden ? ['.not-narrow { display: none !important; }'] : []), ...narrow]
  return [
    whole,
    onNarrow.length
      ? `@media only screen and (max-width:${NARROW}px) { ${onNarrow.join(' ')} }`
      : '',
    hidden
      ? `@media only screen and (min-width:${NARROW + 1}px) { .not-wide { display: none !important; } }`
      : '',
  ]
    .filter(Boolean)
    .join('\n')
}

function logo({ letterhead: look, url, senderName }: Rendering): string {
  if (!look.logo) return ''
  return `<mj-section padding="18px 0 4px"><mj-column><mj-image src="${escapeHtml(url + inWidth(look.logo, look.logoWidth, look))}" alt="${escapeHtml(senderName)}" width="${look.logoWidth}px" align="${look.logoAlign}" padding="0 ${SIDE}px" css-class="${SIDES}" /></mj-column></mj-section>\n`
}

function rowToMjml(row: Row, rendering: Rendering): string {
  const { document, letterhead } = rendering
  const { each } = sidesOf(row)
  const lower = evened(row, letterhead.width, rendering.shapes ?? {})
  const columns = row.columns.map((column) => {
    const blocks = column.blocks.map((block) => {
      const around: Around = {
        side: each,
        width: roomIn(row, column.share, letterhead.width),
        lower: lower.get(block.id) ?? 0,
        style: inheritedStyle(letterhead, document.style, row.style, block.style),
        row,
        look: letterhead,
      }
      return forSome(rendering, block.id, blockToMjml(block, rendering, around))
    })
    return `<mj-column width="${percentOf(column.share)}%" vertical-align="top">${blocks.join('\n')}</mj-column>`
  })
  const attributes = [
    ...rowLook(row, rendering),
    classes([
      row.hidden ? `not-${row.hidden}` : '',
      narrowClass(rendering.document, row),
      row.columns.length > 1 ? SIDES_AROUND : '',
    ]),
    row.narrow === 'reverse' && row.columns.length > 1 ? ' direction="rtl"' : '',
  ].join('')
  return forSome(
    rendering,
    row.id,
    `<mj-section${attributes}>${inOrder(columns, row.narrow)}</mj-section>`,
  )
}

function blockToMjml(block: Block, rendering: Rendering, around: Around): string {
  const names = [
    block.hidden ? `not-${block.hidden}` : '',
    narrowClass(rendering.document, block, around.row),
    rendering.named ? `b-${block.id}` : '',
  ]
  return partsOf(block, rendering, around)
    .map((part) => partToMjml(part, names))
    .join('\n')
}

/** Ground, space, border and what stands behind a row, as attributes. */
function rowLook(row: Row, { url, letterhead }: Rendering): string[] {
  const { style = {} } = row
  const { around } = sidesOf(row)
  const ground = colorOfGround(letterhead, style.ground)
  const { space, border, borderColor, backdrop } = style
  const behind = backdrop?.startsWith('/') ? url + backdrop : backdrop
  return [
    ground ? ` background-color="${ground}"` : '',
    space === undefined && around === 0 ? '' : ` padding="${space ?? 0}px ${around}px"`,
    border ? ` border="${border}px solid ${borderColor ?? '#dfe3d9'}"` : '',
    behind
      ? ` background-url="${escapeHtml(behind)}" background-repeat="no-repeat" background-size="${style.backdropFit ?? 'cover'}" background-position="${style.backdropAt ?? 'center center'}"`
      : '',
  ]
}

/** On narrow the columns stand one under the other in the order of the source. */
function inOrder(columns: string[], narrow: Row['narrow']): string {
  if (columns.length === 1) return columns[0]!
  if (narrow === 'keep') return `<mj-group>${columns.join('')}</mj-group>`
  // Written from right to left, the last comes first in the source and yet stands at the right on wide.
  return (narrow === 'reverse' ? columns.toReversed() : columns).join('')
}

/** MJML takes a mark only where it takes raw HTML. */
function forSome(rendering: Rendering, id: string, mjml: string): string {
  const marked = rendering.forSome(id, '\n')
  if (marked === '\n') return mjml
  const [begin, end] = marked.split('\n') as [string, string]
  return `<mj-raw>${begin}</mj-raw>${mjml}<mj-raw>${end}</mj-raw>`
}
