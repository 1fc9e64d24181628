import { DomUtils, parseDocument } from 'htmlparser2'

/** Markup as a tree, whatever state it is in. */
export type MarkupNode = ReturnType<typeof parseDocument>['children'][number]
export type MarkupElement = Extract<MarkupNode, { attribs: object }>

/** Nested deeper than this, it is no letter but an attack on the stack. */
const DEEPEST = 200

export function parseMarkup(text: string, xml = false): MarkupNode[] {
  const { children } = parseDocument(text, { xmlMode: xml, decodeEntities: true })
  return depthOf(children) > DEEPEST ? [] : children
}

export function isElement(node: MarkupNode): node is MarkupElement {
  return 'attribs' in node && 'children' in node
}

export function elementsIn(nodes: readonly MarkupNode[]): MarkupElement[] {
  return nodes.filter(isElement)
}

/** Everything with a tag of these names, in reading order. */
export function findAll(nodes: readonly MarkupNode[], ...names: string[]): MarkupElement[] {
  return DomUtils.findAll((node) => names.includes(node.name), [...nodes]) as MarkupElement[]
}

export function attribute(element: MarkupElement, name: string): string {
  return element.attribs[name] ?? ''
}

/** A property of an element's own `style`, in lower case. */
export function styleOf(element: MarkupElement, name: string): string {
  const found = attribute(element, 'style')
    .split(';')
    .map((one) => one.split(':'))
    .findLast(([key]) => key!.trim().toLowerCase() === name)
  return found ? found.slice(1).join(':').trim().toLowerCase() : ''
}

export function textOf(node: MarkupNode | readonly MarkupNode[]): string {
  return DomUtils.textContent(node as never)
    .replace(/[\s\u00A0\u200B\u200C\u00AD]+/g, ' ')
    .trim()
}

export function outerHtml(element: MarkupElement): string {
  return DomUtils.getOuterHTML(element as never)
}

export function innerHtml(element: MarkupElement): string {
  return DomUtils.getInnerHTML(element as never)
}

/** A colour as six hex digits; undefined where it is none that can be read. */
export function colorOf(value: string): string | undefined {
  const hex = /#([0-9a-f]{6}|[0-9a-f]{3})\b/i.exec(value)?.[1]?.toLowerCase()
  if (hex) return `#${hex.length === 3 ? [...hex].map((digit) => digit + digit).join('') : hex}`
  const rgb = /rgb\(\s*(\d{1,3})\s*,\s*(\d{1,3})\s*,\s*(\d{1,3})\s*\)/i.exec(value)
  if (!rgb) return undefined
  return `#${rgb
    .slice(1)
    .map((part) => Math.min(255, Number(part)).toString(16).padStart(2, '0'))
    .join('')}`
}

/** How something stands, as it or what is around it says. */
export function alignOf(element: MarkupElement): 'left' | 'center' | 'right' {
  let at: MarkupElement | null = element
  while (at) {
    // Of a table and a picture the attribute says where they themselves stand.
    const own = at.name === 'table' || at.name === 'img' ? '' : attribute(at, 'align')
    const said = styleOf(at, 'text-align') || own.toLowerCase()
    if (said === 'center' || said === 'right' || said === 'left') return said
    if (at.name === 'center') return 'center'
    at = at.parent && isElement(at.parent as MarkupNode) ? (at.parent as MarkupElement) : null
  }
  return 'left'
}

function depthOf(nodes: readonly MarkupNode[]): number {
  let deepest = 0
  const waiting = nodes.map((node) => ({ node, depth: 1 }))
  while (waiting.length) {
    const { node, depth } = waiting.pop()!
    deepest = Math.max(deepest, depth)
    if (isElement(node))
      for (const child of node.children)
        waiting.push({ node: child as MarkupNode, depth: depth + 1 })
  }
  return deepest
}
