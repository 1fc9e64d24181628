import { safeLink } from '../clean'
import { isEmptyText, plainInline, type TextNode } from '../rich-text'
import type { Block } from '../document'
import type { Style } from '../style'
import {
  alignOf,
  attribute,
  colorOf,
  elementsIn,
  findAll,
  isElement,
  outerHtml,
  styleOf,
  textOf,
  type MarkupElement,
  type MarkupNode,
} from './dom'
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
import { borderLook, cornerOf, headingLook, linkLook, otherwiseColoured, textLook } from './looks'
import { isBlockLevel, lineFrom, textFrom } from './rich-text-from'

/** The body of HTML as parts of a letter. What can't be understood stays as a block of HTML and is reported. */
export function partsFromHtml(nodes: readonly MarkupNode[], report: Report): IncomingPart[] {
  const row = columnsOfMjml(nodes, report)
  if (row) return [row]
  const parts: IncomingPart[] = []
  let run: MarkupNode[] = []
  const flush = () => {
    if (isOurFooter(run)) {
      // Under the words of the footer stand the postal address and the way out, which every footer has of its own.
      const words = textFrom(run).slice(0, -2)
      run = []
      parts.push(blockOf('footer', words.length ? { text: docOf(words) } : {}))
      return
    }
    const text = withoutWayOut(textFrom(run), report)
    const look = { ...textLook(run), ...linkLook(run) }
    for (const words of otherwiseColoured(run, look.ink)) note(report, `the colour of “${words}”`)
    run = []
    if (isEmptyText(docOf(text))) return
    const last = parts.at(-1)
    // Paragraphs that follow each other are one text.
    if (last && !isRow(last) && last.kind === 'text' && sameLook(last.style, look))
      parts[parts.length - 1] = { ...last, text: docOf([...last.text.content, ...text]) }
    else parts.push(looking(blockOf('text', { text: docOf(text) }), look))
  }
  for (const node of nodes) {
    if (isBlank(node)) {
      run.push(node)
      continue
    }
    // A paragraph that looks otherwise than the one before is a text of its own; words within a line are not.
    const before = run.findLast((one) => !isBlank(one))
    const begins = before && (isBlockLevel(node) || isBlockLevel(before))
    if (begins && !sameLook(textLook(run), textLook([node]))) flush()
    if (!isElement(node)) run.push(node)
    else if (isHidden(node) || dropped.has(node.name)) {
      if (node.name === 'script') note(report, 'a script, left out')
    } else if (isOnlyText(node)) {
      // A paragraph is one of its own even beside text without one.
      run.push(node)
    } else {
      flush()
      parts.push(...partsFromElement(node, report))
    }
  }
  flush()
  return parts
}

/** Nothing that is seen: white space between tags, a comment. */
const isBlank = (node: MarkupNode) =>
  !isElement(node) && (!('data' in node) || node.type === 'comment' || node.data.trim() === '')

const sameLook = (one: Style | undefined, other: Style) =>
  one?.ink === other.ink &&
  one?.size === other.size &&
  one?.accent === other.accent &&
  one?.textFont === other.textFont

/** Whether it is the end of a letter that was taken out here: only those lead there. */
const isOurFooter = (nodes: readonly MarkupNode[]) =>
  findAll(nodes, 'a').some((link) => attribute(link, 'href') === '#leave')

/** Columns as MJML writes them into HTML: boxes side by side, each of a class that says its share; null where there are none. */
function columnsOfMjml(nodes: readonly MarkupNode[], report: Report): IncomingPart | null {
  const columns = nodes.filter(isElement).flatMap((element) => {
    const share = /\bmj-column-(?:per|px)-([\d-]+)/.exec(attribute(element, 'class'))?.[1]
    return share ? [{ element, share: Number(share.replace('-', '.')) || 1 }] : []
  })
  if (columns.length < 2 || columns.length > 4) return null
  const filled = columns.map(({ element, share }) => ({
    share,
    blocks: blocksOnly(partsFromHtml(element.children as MarkupNode[], report), report),
  }))
  return filled.some(({ blocks }) => blocks.length) ? rowWith(filled) : null
}

/** What stands hidden at the beginning: the line that inboxes show. */
export function hiddenPreview(nodes: readonly MarkupNode[]): string {
  const hidden = findAll(nodes, 'div', 'span', 'p', 'td').find(
    (element) => isHidden(element) && textOf(element),
  )
  return hidden ? textOf(hidden) : ''
}

const dropped = new Set(['script', 'style', 'head', 'title', 'meta', 'link', 'base', 'noscript'])
/** What a letter can't hold. */
const foreign: Record<string, string> = {
  form: 'a form',
  input: 'a form',
  select: 'a form',
  textarea: 'a form',
  iframe: 'a frame',
  video: 'a film',
  audio: 'a sound',
  object: 'an object',
  embed: 'an object',
  svg: 'a drawing (SVG)',
  canvas: 'a drawing',
}

function partsFromElement(element: MarkupElement, report: Report): IncomingPart[] {
  const children = element.children as MarkupNode[]
  const { name } = element
  if (foreign[name]) {
    note(report, foreign[name])
    return [blockOf('html', { html: outerHtml(element) })]
  }
  if (/^h[1-6]$/.test(name)) return headingFrom(element, report)
  switch (name) {
    case 'img':
      return pictureFrom(element, '', report)
    case 'hr':
      return [blockOf('divider', {})]
    case 'a': {
      const images = findAll(children, 'img')
      if (images.length && !textOf(element))
        return images.flatMap((image) => pictureFrom(image, attribute(element, 'href'), report))
      return looksLikeButton(element) ? [buttonFrom(element)] : partsFromHtml(children, report)
    }
    case 'blockquote':
      return quoteFrom(element)
    case 'pre':
      return [blockOf('code', { code: codeOf(element) })]
    case 'table':
      return isData(element)
        ? [tableFrom(element, report)]
        : framed(element, onGround(element, layoutFrom(element, report)), report)
    default:
      return framed(element, onGround(element, partsFromHtml(children, report)), report)
  }
}

/** Parts on the ground of what they stand in. A button is not on its own. */
function onGround(element: MarkupElement, parts: IncomingPart[]): IncomingPart[] {
  const ground = groundOf(element)
  if (!ground) return parts
  const [only] = parts
  if (parts.length === 1 && !isRow(only!) && only!.style?.accent === ground) return parts
  return parts.map((part) =>
    isRow(part) ? { ...part, style: { ground, ...part.style } } : looking(part, { ground }),
  )
}

/** Parts within the line that is around what they stand in: a row can have one. */
function framed(element: MarkupElement, parts: IncomingPart[], report: Report): IncomingPart[] {
  const line = borderLook(element)
  if (line.border === undefined || !parts.length) return parts
  const [only] = parts
  if (parts.length === 1 && isRow(only!)) return [{ ...only, style: { ...line, ...only.style } }]
  if (parts.length === 1 && !isRow(only!) && only!.kind === 'button') return [looking(only!, line)]
  const blocks = parts.flatMap((part) => (isRow(part) ? [] : part))
  if (blocks.length === parts.length) return [rowWith([{ share: 1, blocks }], line)]
  note(report, `the line around “${textOf(element).slice(0, 40)}”`)
  return parts
}

/** A heading, with the pictures that stand in it. */
function headingFrom(element: MarkupElement, report: Report): IncomingPart[] {
  const images = findAll(element.children as MarkupNode[], 'img')
  const pictures = images.flatMap((image) => pictureFrom(image, '', report))
  const content = lineFrom(element.children as MarkupNode[])
  if (!content.length) return pictures
  const level = element.name === 'h1' ? 1 : 2
  const look = headingLook(element, level)
  const heading = blockOf('heading', {
    level,
    align: alignOf(element),
    text: docOf([{ type: 'paragraph', content }]),
    style: look,
  })
  return [...pictures, heading]
}

function quoteFrom(element: MarkupElement): Block[] {
  const text = docOf(textFrom(element.children as MarkupNode[]))
  return isEmptyText(text) ? [] : [looking(blockOf('quote', { text, by: '' }), textLook([element]))]
}

function buttonFrom(element: MarkupElement): Block {
  const around = element.parent as MarkupElement | null
  const accent = groundOf(element) ?? groundOf(around)
  const corner =
    cornerOf(styleOf(element, 'border-radius')) ??
    (around && isElement(around as MarkupNode)
      ? cornerOf(styleOf(around, 'border-radius'))
      : undefined)
  const outline = accent === undefined && isOutlined(element)
  const style = {
    ...borderLook(element),
    ...(accent ? { accent } : {}),
    ...(corner === undefined ? {} : { corner }),
  }
  return blockOf('button', {
    label: textOf(element),
    href: safeLink(attribute(element, 'href')),
    align: alignOf(element),
    ...(outline ? { outline } : {}),
    ...(Object.keys(style).length ? { style } : {}),
  })
}

/** A line around a link, or around the cell in which it stands alone. */
function isOutlined(element: MarkupElement): boolean {
  const around = element.parent as MarkupElement | null
  const lined = (one: MarkupElement) =>
    /^[1-9]\d*px\s+(solid|dashed|dotted)/.test(styleOf(one, 'border').trim())
  if (lined(element)) return true
  return (
    around !== null &&
    isElement(around as MarkupNode) &&
    around.name === 'td' &&
    textOf(around) === textOf(element) &&
    lined(around)
  )
}

/** A link that is filled like one, or stands alone in a filled cell. */
function looksLikeButton(element: MarkupElement): boolean {
  const words = textOf(element)
  if (!words || words.length > 60) return false
  if (/\b(button|btn|cta)\b/i.test(attribute(element, 'class'))) return true
  if (attribute(element, 'role') === 'button') return true
  const roomy = ['padding', 'padding-top', 'border-radius', 'line-height'].some((key) =>
    styleOf(element, key),
  )
  if (groundOf(element) && (roomy || styleOf(element, 'display').includes('block'))) return true
  if (roomy && isOutlined(element)) return true
  const around = element.parent
  return (
    !!around &&
    isElement(around as MarkupNode) &&
    (around as MarkupElement).name === 'td' &&
    groundOf(around as MarkupElement) !== undefined &&
    textOf(around as MarkupElement) === words &&
    roomy
  )
}

function groundOf(element: MarkupElement | null): string | undefined {
  if (!element || !isElement(element as MarkupNode)) return undefined
  const said =
    styleOf(element, 'background-color') ||
    styleOf(element, 'background') ||
    attribute(element, 'bgcolor')
  return colorOf(said)
}

const rowsOf = (table: MarkupElement) =>
  elementsIn(table.children as MarkupNode[]).flatMap((child) =>
    child.name === 'tr'
      ? [child]
      : ['tbody', 'thead', 'tfoot'].includes(child.name)
        ? elementsIn(child.children as MarkupNode[]).filter(({ name }) => name === 'tr')
        : [],
  )
const cellsOf = (row: MarkupElement) =>
  elementsIn(row.children as MarkupNode[]).filter(({ name }) => name === 'td' || name === 'th')

/** Whether a table holds data and is not there for the layout. */
function isData(table: MarkupElement): boolean {
  if (attribute(table, 'role') === 'presentation') return false
  const inside = table.children as MarkupNode[]
  if (findAll(inside, 'table', 'img').length) return false
  if (findAll(inside, 'th').length || Number(attribute(table, 'border')) > 0) return true
  const rows = rowsOf(table).map(cellsOf)
  const width = rows[0]?.length ?? 0
  return (
    rows.length > 1 &&
    width > 1 &&
    rows.every((cells) => cells.length === width && cells.every((cell) => textOf(cell).length < 80))
  )
}

function tableFrom(table: MarkupElement, report: Report): Block {
  const rows = rowsOf(table).map(cellsOf)
  const words = textOf(rows[0] ?? []).slice(0, 40)
  const cells = rows.flat()
  if (Number(attribute(table, 'border')) > 0 || cells.some((cell) => borderLook(cell).border))
    note(report, `the lines around the cells of the table “${words}”`)
  if (cells.some((cell) => alignOf(cell) !== 'left'))
    note(report, `where the words stand in the cells of the table “${words}”`)
  return blockOf('table', {
    head: rows[0]?.every(({ name }) => name === 'th') ?? false,
    cells: rows.map((cells) => cells.map((cell) => textOf(cell))),
  })
}

/** A table that is there for the layout: its cells one under the other, or side by side as columns. */
function layoutFrom(table: MarkupElement, report: Report): IncomingPart[] {
  return rowsOf(table).flatMap((row): IncomingPart[] => {
    const columns = cellsOf(row).flatMap((cell) => {
      const within = partsFromHtml(cell.children as MarkupNode[], report)
      const parts = framed(cell, onGround(cell, within), report)
      const width = attribute(cell, 'width') || styleOf(cell, 'width')
      return parts.length ? [{ parts, share: Number.parseFloat(width) || 0 }] : []
    })
    if (columns.length < 2 || columns.length > 4) return columns.flatMap(({ parts }) => parts)
    const known = columns.every(({ share }) => share > 0)
    return [
      rowWith(
        columns.map(({ parts, share }) => ({
          share: known ? share : 1,
          blocks: blocksOnly(parts, report),
        })),
      ),
    ]
  })
}

/** Text and inline elements, or a paragraph or list of nothing else. */
function isOnlyText(element: MarkupElement): boolean {
  const children = element.children as MarkupNode[]
  const textual = !isBlockLevel(element) || ['p', 'ul', 'ol'].includes(element.name)
  if (!textual || foreign[element.name] || element.name === 'img') return false
  if (element.name === 'a' && looksLikeButton(element)) return false
  return children.every((child) =>
    isElement(child) ? isOnlyText(child) || (child.name === 'li' && isOnlyTextItem(child)) : true,
  )
}

const isOnlyTextItem = (item: MarkupElement) =>
  (item.children as MarkupNode[]).every((child) => !isElement(child) || isOnlyText(child))

function isHidden(element: MarkupElement): boolean {
  return (
    styleOf(element, 'display') === 'none' ||
    styleOf(element, 'mso-hide') === 'all' ||
    styleOf(element, 'max-height') === '0' ||
    styleOf(element, 'max-height') === '0px'
  )
}

function codeOf(element: MarkupElement): string {
  const lines = (nodes: readonly MarkupNode[]): string =>
    nodes
      .map((node) =>
        node.type === 'text'
          ? node.data
          : isElement(node)
            ? node.name === 'br'
              ? '\n'
              : lines(node.children as MarkupNode[])
            : '',
      )
      .join('')
  return lines(element.children as MarkupNode[]).replace(/^\n|\s+$/g, '')
}

/** Another sender's way out leads out of their list; the footer has ours. */
function withoutWayOut(text: TextNode[], report: Report): TextNode[] {
  return text.filter((node) => {
    const wayOut = JSON.stringify(node).match(/unsubscribe|opt-?out/i)
    const links = JSON.stringify(node).includes('"type":"link"')
    const isIt = !!wayOut && (links || plainInline(docOf([node])).length < 120)
    if (isIt) note(report, 'their way to unsubscribe; the footer has ours')
    return !isIt
  })
}
