import { safeLink } from '../clean'
import { fillInSyntaxProblem, readFillIn, readTemplateText } from '../fill-ins'
import type { Inline, Mark, TextNode } from '../rich-text'
import {
  alignOf,
  attribute,
  findAll,
  isElement,
  styleOf,
  textOf,
  type MarkupElement,
  type MarkupNode,
} from './dom'

const blocks = new Set(
  'address article aside blockquote center dd div dl dt fieldset figcaption figure footer header h1 h2 h3 h4 h5 h6 hr li main nav ol p pre section table tbody td tfoot th thead tr ul'.split(
    ' ',
  ),
)

/** Whether something begins a new line. */
export function isBlockLevel(node: MarkupNode): boolean {
  return isElement(node) && blocks.has(node.name)
}

/** Markup as paragraphs and lists; what is no text is passed over. */
export function textFrom(nodes: readonly MarkupNode[]): TextNode[] {
  const found: TextNode[] = []
  let line: Inline[] = []
  let align: 'left' | 'center' | 'right' = 'left'
  const end = () => {
    const content = tidy(line)
    line = []
    if (!content.length) return
    found.push({
      type: 'paragraph',
      ...(align === 'left' ? {} : { attrs: { textAlign: align } }),
      content,
    })
  }
  const walk = (all: readonly MarkupNode[], marks: Mark[]) => {
    for (const node of all) {
      if (node.type === 'text') line.push(...textWithFillIns(node.data, marks))
      else if (!isElement(node)) continue
      else if (node.name === 'br') line.push({ type: 'hardBreak' })
      else if (node.name === 'ul' || node.name === 'ol') {
        end()
        found.push(...listFrom(node))
      } else if (isListItemOfWord(node)) {
        end()
        addItem(found, node)
      } else if (isBlockLevel(node)) {
        end()
        align = alignOf(node)
        walk(node.children as MarkupNode[], headed(node, marks))
        end()
        align = 'left'
      } else if (!passedOver.has(node.name) && styleOf(node, 'mso-list') !== 'ignore')
        walk(node.children as MarkupNode[], withMarks(node, marks))
    }
  }
  const first = nodes.find(isElement)
  if (first?.parent && isElement(first.parent as MarkupNode))
    align = alignOf(first.parent as MarkupElement)
  walk(nodes, [])
  end()
  return found
}

/** The same text with all of it standing so, and bold or as it is. */
export function standing(
  text: readonly TextNode[],
  { align, bold }: { align: string; bold: boolean },
): TextNode[] {
  return text.map((node) => {
    if (node.type !== 'paragraph') return node
    const content = bold
      ? node.content?.map((one) =>
          one.type === 'text' && !one.marks?.some(({ type }) => type === 'bold')
            ? { ...one, marks: [...(one.marks ?? []), { type: 'bold' as const }] }
            : one,
        )
      : node.content
    return align === 'center' || align === 'right'
      ? { ...node, attrs: { textAlign: align }, ...(content ? { content } : {}) }
      : { ...node, ...(content ? { content } : {}) }
  })
}

/** One line of markup. */
export function lineFrom(nodes: readonly MarkupNode[]): Inline[] {
  const lines = textFrom(nodes).flatMap((node) =>
    node.type === 'paragraph' ? [node.content ?? []] : [],
  )
  return lines.flatMap((line, i) => (i ? [{ type: 'text' as const, text: ' ' }, ...line] : line))
}

/** A heading in the midst of a text is a bold line, and so is a paragraph that says so. */
function headed(element: MarkupElement, marks: Mark[]): Mark[] {
  return (/^h[1-6]$/.test(element.name) || isBold(styleOf(element, 'font-weight'))) &&
    !marks.some(({ type }) => type === 'bold')
    ? [...marks, { type: 'bold' }]
    : marks
}

const isBold = (weight: string) => weight === 'bold' || Number(weight) >= 600

/** Word processors write lists as paragraphs with their bullet or number in front. */
function isListItemOfWord(element: MarkupElement): boolean {
  const said = styleOf(element, 'mso-list')
  return said !== '' && said !== 'ignore' && isBlockLevel(element)
}

function addItem(found: TextNode[], element: MarkupElement) {
  const bullet = findAll(element.children as MarkupNode[], 'span').find(
    (span) => styleOf(span, 'mso-list') === 'ignore',
  )
  const type =
    bullet && /^\(?[0-9a-z]{1,3}[.)]/i.test(textOf(bullet)) ? 'orderedList' : 'bulletList'
  const content = textFrom(element.children as MarkupNode[])
  if (!content.length) return
  const last = found.at(-1)
  const item = { type: 'listItem' as const, content }
  if (last?.type === type) last.content.push(item)
  else found.push({ type, content: [item] })
}

const passedOver = new Set(['script', 'style', 'head', 'title', 'img', 'svg', 'noscript'])

function listFrom(list: MarkupElement): TextNode[] {
  const items = (list.children as MarkupNode[]).filter(isElement).flatMap((item) => {
    const content = textFrom(item.children as MarkupNode[])
    return content.length ? [{ type: 'listItem' as const, content }] : []
  })
  if (!items.length) return []
  return [{ type: list.name === 'ol' ? 'orderedList' : 'bulletList', content: items }]
}

function withMarks(element: MarkupElement, marks: Mark[]): Mark[] {
  const weight = styleOf(element, 'font-weight')
  const decoration = styleOf(element, 'text-decoration')
  const { name } = element
  const given: Mark[] = []
  if (name === 'b' || name === 'strong' || isBold(weight)) given.push({ type: 'bold' })
  if (name === 'i' || name === 'em' || styleOf(element, 'font-style') === 'italic')
    given.push({ type: 'italic' })
  if (name === 'u' || (name !== 'a' && decoration.includes('underline')))
    given.push({ type: 'underline' })
  if (name === 's' || name === 'strike' || name === 'del' || decoration.includes('line-through'))
    given.push({ type: 'strike' })
  const href = name === 'a' ? safeLink(attribute(element, 'href')) : ''
  if (href) given.push({ type: 'link', attrs: { href } })
  return [...marks, ...given.filter(({ type }) => !marks.some((mark) => mark.type === type))]
}

/** Text with what reads as one of our fill-ins made one; any other placeholder stays as it is written. */
function textWithFillIns(text: string, marks: Mark[]): Inline[] {
  return readTemplateText(text).map((piece): Inline => {
    const written = typeof piece === 'string' ? piece : `{{ ${piece.expression} }}`
    if (typeof piece !== 'string' && isOurs(piece.expression))
      return { type: 'fillIn', attrs: { expression: piece.expression } }
    return { type: 'text', text: written, ...(marks.length ? { marks } : {}) }
  })
}

function isOurs(expression: string): boolean {
  const { path } = readFillIn(expression)
  return /^(person|list|sender|mailing)\.\w+$/.test(path) && !fillInSyntaxProblem(expression)
}

/** With white space as a browser shows it, and neighbours of one look joined. */
function tidy(line: Inline[]): Inline[] {
  const joined: Inline[] = []
  for (const node of line) {
    const last = joined.at(-1)
    if (node.type !== 'text') {
      joined.push(node)
      continue
    }
    let text = node.text.replace(/[\s\u00AD\u200B\u200C]+/g, ' ')
    const afterSpace =
      !last || last.type === 'hardBreak' || (last.type === 'text' && last.text.endsWith(' '))
    if (afterSpace) text = text.replace(/^ /, '')
    if (text === '') continue
    if (last?.type === 'text' && JSON.stringify(last.marks) === JSON.stringify(node.marks))
      joined[joined.length - 1] = { ...last, text: last.text + text }
    else joined.push({ ...node, text })
  }
  const end = joined.at(-1)
  if (end?.type === 'text') {
    const text = end.text.trimEnd()
    if (text) joined[joined.length - 1] = { ...end, text }
    else joined.pop()
  }
  while (joined.at(-1)?.type === 'hardBreak') joined.pop()
  while (joined[0]?.type === 'hardBreak') joined.shift()
  return joined
}
