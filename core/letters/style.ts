import type { Letterhead } from './letterhead'

/** How something looks. What is left out is taken from what stands around it: letterhead → letter → row → block. */
export interface Style {
  ink?: string
  accent?: string
  headingFont?: string
  textFont?: string
  /** Of running text, px. */
  size?: number
  /** Of corners of buttons and pictures, px. */
  corner?: number
  /** Behind a row or a block; around the paper where it is the letter's. Not handed down. */
  ground?: string
  /** Above and below a row or a block, px. Not handed down. */
  space?: number
}

export type StyleKey = keyof Style
/** Where a value comes from. */
export type StyleLevel = 'letterhead' | 'letter' | 'row' | 'block'
/** What is handed down from level to level. */
export const inherited = ['ink', 'accent', 'headingFont', 'textFont', 'size', 'corner'] as const
export type InheritedStyle = Required<Pick<Style, (typeof inherited)[number]>>

/** What holds at the end of the levels: the nearest level that says something has the say. */
export function inheritedStyle(
  letterhead: Letterhead,
  ...levels: (Style | undefined)[]
): InheritedStyle {
  const found = { ...letterheadStyle(letterhead) }
  for (const level of levels)
    for (const key of inherited)
      if (level?.[key] !== undefined) Object.assign(found, { [key]: level[key] })
  return found
}

/** At which level a value is said; the letterhead says everything that nobody else does. */
export function saidAt(
  key: StyleKey,
  levels: { level: StyleLevel; style: Style | undefined }[],
): StyleLevel {
  return levels.findLast(({ style }) => style?.[key] !== undefined)?.level ?? 'letterhead'
}

function letterheadStyle(letterhead: Letterhead): InheritedStyle {
  const { ink, accent, headingFont, textFont, size, corner } = letterhead
  return { ink, accent, headingFont, textFont, size, corner }
}

/** Stacks of fonts that mail programs have, with their names. */
export const fontStacks = [
  { name: 'Georgia', stack: 'Georgia, "Times New Roman", serif' },
  { name: 'Palatino', stack: '"Palatino Linotype", Palatino, "Book Antiqua", serif' },
  { name: 'Times', stack: '"Times New Roman", Times, serif' },
  { name: 'Verdana', stack: 'Verdana, Geneva, sans-serif' },
  { name: 'Arial', stack: 'Arial, Helvetica, sans-serif' },
  { name: 'Trebuchet', stack: '"Trebuchet MS", Tahoma, sans-serif' },
  { name: 'Tahoma', stack: 'Tahoma, Verdana, sans-serif' },
  { name: 'Courier', stack: '"Courier New", Courier, monospace' },
] as const

/** A style out of what came from outside; what it can't hold is dropped. Undefined where nothing is left. */
export function cleanStyle(json: unknown): Style | undefined {
  if (typeof json !== 'object' || json === null) return undefined
  const given = json as Record<string, unknown>
  const style: Style = {}
  for (const key of ['ink', 'accent', 'ground'] as const)
    if (isColor(given[key])) style[key] = given[key].toLowerCase()
  for (const key of ['headingFont', 'textFont'] as const)
    if (isFont(given[key])) style[key] = given[key]
  const within = { size: [10, 28], corner: [0, 40], space: [0, 120] } as const
  for (const key of ['size', 'corner', 'space'] as const) {
    const value = given[key]
    if (typeof value === 'number' && Number.isFinite(value))
      style[key] = Math.round(Math.min(within[key][1], Math.max(within[key][0], value)))
  }
  return Object.keys(style).length ? style : undefined
}

/** Six hex digits: what every mail program understands. */
export function isColor(value: unknown): value is string {
  return typeof value === 'string' && /^#[0-9a-f]{6}$/i.test(value)
}

/** One of our stacks, or the like: names, quotes and commas, nothing that could end an attribute. */
export function isFont(value: unknown): value is string {
  return typeof value === 'string' && value.length <= 200 && /^[\w ",-]+$/.test(value)
}
