import { safeLink } from '../clean'
import { isEmptyText } from '../rich-text'
import type { Block } from '../document'
import type { Style } from '../style'
import {
  attribute,
  colorOf,
  elementsIn,
  findAll,
  innerHtml,
  outerHtml,
  parseMarkup,
  textOf,
  type MarkupElement,
  type MarkupNode,
} from './dom'
import { partsFromHtml } from './from-html'
import {
  blockOf,
  blocksOnly,
  docOf,
  isRow,
  looking,
  note,
  pictureFrom,
  rowWith,
  type IncomingPart,
  type Report,
} from './parts'
import { backgroundLook, mjmlLook, spreadDefaults } from './looks'
import { standing, textFrom } from './rich-text-from'

/** The body of MJML as parts of a letter: sections are rows, columns columns. */
export function partsFromMjml(nodes: readonly MarkupNode[], report: Report): IncomingPart[] {
  spreadDefaults(nodes)
  const body = findAll(nodes, 'mj-body')[0]
  return body
    ? elementsIn(body.children as MarkupNode[]).flatMap((one) => sections(one, report))
    : []
}

function sections(element: MarkupElement, report: Report): IncomingPart[] {
  const children = elementsIn(element.children as MarkupNode[])
  switch (element.name) {
    case 'mj-section':
      return section(element, report)
    case 'mj-wrapper': {
      const look = backgroundLook(element)
      return children
        .flatMap((child) => sections(child, report))
        .map((part) =>
          isRow(part) ? { ...part, style: { ...look, ...part.style } } : looking(part, look),
        )
    }
    case 'mj-hero': {
      const within = blocks(children, report)
      return within.length
        ? [rowWith([{ share: 1, blocks: within }], lookOf(backgroundLook(element)))]
        : []
    }
    case 'mj-raw':
      return rawFrom(element)
    default:
      return content(element, report)
  }
}

function section(element: MarkupElement, report: Report): IncomingPart[] {
  const children = elementsIn(element.children as MarkupNode[])
  const grouped = children.find(({ name }) => name === 'mj-group')
  const columns = (grouped ? elementsIn(grouped.children as MarkupNode[]) : children).filter(
    ({ name }) => name === 'mj-column',
  )
  const filled = columns.map((column) => ({
    share: Number.parseFloat(attribute(column, 'width')) || 100 / columns.length,
    blocks: blocks(elementsIn(column.children as MarkupNode[]), report).map((block) =>
      looking(block, backgroundLook(column)),
    ),
  }))
  const kept = filled.filter((column) => column.blocks.length)
  if (!kept.length) return []
  const style = lookOf(backgroundLook(element))
  if (kept.length > 4) return kept.flatMap((column) => column.blocks)
  const row = rowWith(kept, style)
  const reversed = attribute(element, 'direction') === 'rtl'
  if (grouped) return [{ ...row, narrow: 'keep' }]
  return [reversed ? { ...row, columns: row.columns.toReversed(), narrow: 'reverse' } : row]
}

/** Nothing said is no style. */
const lookOf = (style: Style): Style | undefined => (Object.keys(style).length ? style : undefined)

const blocks = (elements: readonly MarkupElement[], report: Report) =>
  elements.flatMap((element) => blocksOnly(content(element, report), report))

function content(element: MarkupElement, report: Report): IncomingPart[] {
  switch (element.name) {
    case 'mj-text':
      return textParts(element, report)
    case 'mj-button': {
      const accent = colorOf(attribute(element, 'background-color'))
      const align = attribute(element, 'align')
      return [
        looking(
          blockOf('button', {
            label: textOf(element),
            href: safeLink(attribute(element, 'href')),
            align: align === 'left' || align === 'right' ? align : 'center',
            ...(attribute(element, 'background-color') === 'transparent' ? { outline: true } : {}),
            ...(attribute(element, 'width') === '100%' ? { full: true } : {}),
            ...(accent ? { style: { accent } } : {}),
          }),
          mjmlLook(element),
        ),
      ]
    }
    case 'mj-image':
      return pictureFrom(element, attribute(element, 'href'), report).map((block) =>
        looking(block, mjmlLook(element)),
      )
    case 'mj-carousel':
      note(report, 'mj-carousel: its pictures stand one under the other')
      return elementsIn(element.children as MarkupNode[]).flatMap((one) =>
        pictureFrom(one, attribute(one, 'href'), report),
      )
    case 'mj-divider':
      return [blockOf('divider', {})]
    case 'mj-spacer':
      return [blockOf('space', { height: Number.parseInt(attribute(element, 'height'), 10) || 20 })]
    case 'mj-table':
      return partsFromHtml(parseMarkup(`<table border="1">${innerHtml(element)}</table>`), report)
    case 'mj-social':
    case 'mj-navbar':
      return [socialFrom(element)]
    case 'mj-raw':
      return rawFrom(element)
    default:
      note(report, element.name)
      return textOf(element) || findAll([element], 'img', 'mj-image').length
        ? [blockOf('html', { html: outerHtml(element).replace(/<(\/?)mj-[\w-]+/g, '<$1div') })]
        : []
  }
}

/** The HTML in a text. Where it is of headings, tables and the like, each is a block of its own. */
function textParts(element: MarkupElement, report: Report): IncomingPart[] {
  const html = parseMarkup(innerHtml(element))
  const align = attribute(element, 'align')
  const look = mjmlLook(element)
  const bold = /^(?:bold|[6-9]00)$/.test(attribute(element, 'font-weight'))
  const parts = partsFromHtml(html, report).map((part) => {
    if (isRow(part)) return part
    if (part.kind === 'heading') return looking(part, look)
    const stood =
      part.kind === 'text'
        ? { ...part, text: docOf(standing(part.text.content, { align, bold })) }
        : part
    return looking(stood, look)
  })
  if (align !== 'center' && align !== 'right') return parts
  return parts.map((part) =>
    'kind' in part && 'align' in part ? { ...part, align } : part,
  ) as IncomingPart[]
}

function socialFrom(element: MarkupElement): Block {
  const links = elementsIn(element.children as MarkupNode[]).map((one) => ({
    name: textOf(one) || attribute(one, 'name') || attribute(one, 'alt'),
    href: safeLink(attribute(one, 'href')),
  }))
  const align = attribute(element, 'align')
  return blockOf('social', {
    align: align === 'left' || align === 'right' ? align : 'center',
    links,
  })
}

/** Raw HTML stays raw, but for comments and conditions that say nothing. */
function rawFrom(element: MarkupElement): Block[] {
  const html = innerHtml(element)
    .replace(/<!--.*?-->/gs, '')
    .trim()
  const words = docOf(textFrom(parseMarkup(html)))
  return isEmptyText(words) && !/<img\b/i.test(html) ? [] : [blockOf('html', { html })]
}
