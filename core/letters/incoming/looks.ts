import type { Block } from '../document'
import { headingSize, isFont, pictureSource, ranges, type Style } from '../style'
import {
  attribute,
  colorOf,
  findAll,
  isElement,
  styleOf,
  textOf,
  type MarkupElement,
  type MarkupNode,
} from './dom'

/** What a browser, and MJML, take where nothing is said: so letters of others look as they did. */
export const defaultLook = {
  html: { ink: '#000000', size: 16 },
  mjml: { ink: '#000000', size: 13 },
} as const satisfies Record<string, Style>
const [SMALLEST, LARGEST] = ranges.size
/** How large headings are beside the text around them, by level, where nothing is said (HTML, 15.3.6). */
const HEADINGS: Record<string, number> = { h1: 2, h2: 1.5, h3: 1.17, h4: 1, h5: 0.83, h6: 0.67 }

/** The size of running text beside which our heading of a level is as large as one of theirs. */
export function headingLook(element: MarkupElement, level: 1 | 2): Style {
  const own = pixels(ofElement(element, 'font-size'), 72)
  const around = pixels(said(elementAround(element), 'font-size')) ?? defaultLook.html.size
  const wanted = own ?? around * HEADINGS[element.name]!
  const size = Math.round((wanted / headingSize(1_000, level)) * 1_000)
  const { ink, textFont } = textLook([element])
  return tidy({
    ink,
    size: Math.min(LARGEST, Math.max(SMALLEST, size)),
    headingFont: textFont,
  })
}
const elementAround = ({ parent }: MarkupElement): MarkupNode[] =>
  parent && isElement(parent as MarkupNode) ? [parent as MarkupNode] : []

/** Corners, px; undefined where nothing is said of them. */
export function cornerOf(text: string): number | undefined {
  const size = /^\s*(\d{1,3})(?:\.\d+)?px/.exec(text)?.[1]
  return size === undefined ? undefined : Math.min(ranges.corner[1], Number(size))
}

/** The colour, size and font of text, as it, or what it stands in, says; what nothing says is left out. */
export function textLook(nodes: readonly MarkupNode[]): Style {
  return tidy({
    ink: colorOf(said(nodes, 'color')),
    size: pixels(said(nodes, 'font-size')),
    textFont: fontOf(said(nodes, 'font-family')),
  })
}

/** A stack of fonts as it is written down here; undefined where it is none that can be kept. */
function fontOf(text: string): string | undefined {
  const stack = text.replaceAll("'", '"').replace(/\s+/g, ' ').trim()
  return isFont(stack) ? stack : undefined
}

/** A line around something, where all of its sides have the same. */
export function borderLook(element: MarkupElement): Style {
  const line = styleOf(element, 'border')
  const width = /(?:^|\s)(\d{1,2})(?:\.\d+)?px/.exec(line)?.[1]
  if (!width || Number(width) === 0 || /\b(none|hidden)\b/.test(line)) return {}
  return tidy({ border: Math.min(ranges.border[1], Number(width)), borderColor: colorOf(line) })
}

/** The letter's fonts, where all of its texts or headings name the same; the blocks then need not. */
export function sharedFonts(blocks: readonly Block[]): Style {
  const one = (key: 'textFont' | 'headingFont', of: readonly Block[]) => {
    const fonts = new Set(of.map(({ style }) => style?.[key]))
    return fonts.size === 1 ? [...fonts][0] : undefined
  }
  const headings = blocks.filter(({ kind }) => kind === 'heading')
  const texts = blocks.filter(({ kind }) => kind === 'text')
  return tidy({ headingFont: one('headingFont', headings), textFont: one('textFont', texts) })
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
  const corner = cornerOf(
    attribute(element, 'border-radius') || (element.name === 'mj-button' ? '3px' : ''),
  )
  return tidy({
    ...(element.name === 'mj-text'
      ? {
          ink: colorOf(attribute(element, 'color')),
          size: pixels(attribute(element, 'font-size')),
          textFont: fontOf(attribute(element, 'font-family')),
        }
      : {}),
    ground: colorOf(attribute(element, 'container-background-color')),
    corner,
  })
}

/** The colour of links, where all that stand in some text have the same. */
export function linkLook(nodes: readonly MarkupNode[]): Style {
  const colors = findAll(nodes, 'a').map((link) => colorOf(innermost(link, 'color')))
  return tidy({ accent: colors.every((one) => one === colors[0]) ? colors[0] : undefined })
}

/** Words with a colour of their own within a text, which a letter can't hold: their beginnings. */
export function otherwiseColoured(nodes: readonly MarkupNode[], ink: string | undefined): string[] {
  return findAll(nodes, 'span', 'font', 'b', 'strong', 'em', 'i', 'u').flatMap((element) => {
    const own = colorOf(ofElement(element, 'color'))
    const words = textOf(element)
    return own && own !== (ink ?? defaultLook.html.ink) && words ? [words.slice(0, 40)] : []
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
function pixels(text: string, largest: number = LARGEST): number | undefined {
  const size = /^\s*(\d{1,3}(?:\.\d+)?)px/.exec(text)?.[1]
  const rounded = size === undefined ? NaN : Math.round(Number(size))
  return rounded >= SMALLEST && rounded <= largest ? rounded : undefined
}

function tidy(style: { [Key in keyof Style]: Style[Key] | undefined }): Style {
  return Object.fromEntries(
    Object.entries(style).filter(([, value]) => value !== undefined && value === value),
  ) as Style
}
