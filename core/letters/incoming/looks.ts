import { pictureSource, type Style } from '../style'
import { attribute, colorOf, isElement, styleOf, type MarkupElement, type MarkupNode } from './dom'

/** Sizes of running text that a letter may have, px. */
const SMALLEST = 10
const LARGEST = 40

/** The colour and size of text, as it, or what it stands in, says; what nothing says is left out. */
export function textLook(nodes: readonly MarkupNode[]): Style {
  return tidy({ ink: colorOf(said(nodes, 'color')), size: pixels(said(nodes, 'font-size')) })
}

/** A property that all of some nodes say alike; else what says it around them. */
function said(nodes: readonly MarkupNode[], property: string): string {
  const seen = nodes.filter(
    (node) => isElement(node) || ('data' in node && node.data.trim() !== ''),
  )
  const own = seen.map((node) => (isElement(node) ? innermost(node, property) : ''))
  if (own.length && own[0] && own.every((one) => one === own[0])) return own[0]!
  let at = (seen[0]?.parent ?? null) as MarkupElement | null
  while (at) {
    const found = isElement(at) ? ofElement(at, property) : ''
    if (found) return found
    at = at.parent as MarkupElement | null
  }
  return ''
}

/** What an element says, or the one alone in it. */
function innermost(element: MarkupElement, property: string): string {
  const within = (element.children as MarkupNode[]).filter(
    (node) => isElement(node) || ('data' in node && node.data.trim() !== ''),
  )
  const only = within.length === 1 && isElement(within[0]!) ? within[0]! : null
  // The colour of a link is its own, not that of the text.
  const inner = only && only.name !== 'a' ? innermost(only, property) : ''
  return inner || ofElement(element, property)
}

const ofElement = (element: MarkupElement, property: string) =>
  styleOf(element, property) || (property === 'color' ? attribute(element, 'color') : '')

/** What attributes of MJML say of how a block looks. */
export function mjmlLook(element: MarkupElement): Style {
  const corner = attribute(element, 'border-radius')
  return tidy({
    ...(element.name === 'mj-text'
      ? {
          ink: colorOf(attribute(element, 'color')),
          size: pixels(attribute(element, 'font-size')),
        }
      : {}),
    ground: colorOf(attribute(element, 'container-background-color')),
    ...(corner ? { corner: Math.min(40, Number.parseInt(corner, 10)) } : {}),
  })
}

/** What is behind a section or a hero: its colour and its picture. */
export function backgroundLook(element: MarkupElement): Style {
  const backdrop = pictureSource(attribute(element, 'background-url').trim())
  return tidy({
    ground: colorOf(attribute(element, 'background-color')),
    ...(backdrop ? { backdrop } : {}),
  })
}

/** Sets what the head of MJML says of all elements, of those of a name and of those of a class, where they say nothing. */
export function spreadDefaults(nodes: readonly MarkupNode[]) {
  const byName = new Map<string, Record<string, string>>()
  const byClass = new Map<string, Record<string, string>>()
  const every = (of: readonly MarkupNode[], see: (element: MarkupElement) => void) => {
    for (const node of of)
      if (isElement(node)) {
        see(node)
        every(node.children as MarkupNode[], see)
      }
  }
  every(nodes, (element) => {
    if (element.name !== 'mj-attributes') return
    for (const one of element.children as MarkupNode[])
      if (isElement(one)) {
        const { name = '', ...attributes } = one.attribs
        if (one.name === 'mj-class') byClass.set(name, { ...byClass.get(name), ...attributes })
        else byName.set(one.name, { ...byName.get(one.name), ...one.attribs })
      }
  })
  if (!byName.size && !byClass.size) return
  every(nodes, (element) => {
    if (!element.name.startsWith('mj-') || isSaying.has(element.name)) return
    const classes = attribute(element, 'mj-class').split(/\s+/)
    element.attribs = {
      ...byName.get('mj-all'),
      ...byName.get(element.name),
      ...Object.assign({}, ...classes.map((one) => byClass.get(one) ?? {})),
      ...element.attribs,
    }
  })
}
const isSaying = new Set(['mj-attributes', 'mj-all', 'mj-class', 'mj-head', 'mj-body'])

/** "15px" as 15; undefined where it is no size of text. */
function pixels(text: string): number | undefined {
  const size = /^\s*(\d{1,3}(?:\.\d+)?)px/.exec(text)?.[1]
  const rounded = size === undefined ? NaN : Math.round(Number(size))
  return rounded >= SMALLEST && rounded <= LARGEST ? rounded : undefined
}

function tidy(style: { [Key in keyof Style]: Style[Key] | undefined }): Style {
  return Object.fromEntries(
    Object.entries(style).filter(([, value]) => value !== undefined && value === value),
  ) as Style
}
