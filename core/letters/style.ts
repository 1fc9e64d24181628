import { contrast } from './color'
import type { Align, HeadingLevel } from './document'
import type { Letterhead } from './letterhead'
import { accentOn, colorOfGround, inkOn, isGround, quietInk, wordsOn } from './roles'

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
  /**
   * Behind a row or a block; around the paper where it is the letter's. A colour, or what it is for (`roles.ts`): then what
   * stands on it has the letterhead's inks for that. Not handed down.
   */
  ground?: string
  /** Above and below a row or a block, px. Not handed down. */
  space?: number
  /** A line around a row or a block, px, and its colour. Not handed down. */
  border?: number
  borderColor?: string
  /** Where text or a picture stands in a block that has no place of its own for it. Not handed down. */
  align?: Align
  /** Small capitals with air between them, as over a heading. Not handed down. */
  capitals?: boolean
  /** A picture from edge to edge of the paper, where it stands alone in its row. Not handed down. */
  edge?: boolean
  /** What differs on narrow screens: size of text (handed down), space and where things stand. */
  narrowSize?: number
  narrowSpace?: number
  narrowAlign?: Align
  /** A picture behind a row: its source, where it stands and how it fills the row. Not handed down. */
  backdrop?: string
  backdropAt?: BackdropPlace
  backdropFit?: BackdropFit
}

export const backdropPlaces = [
  'top left',
  'top center',
  'top right',
  'center left',
  'center center',
  'center right',
  'bottom left',
  'bottom center',
  'bottom right',
] as const
export type BackdropPlace = (typeof backdropPlaces)[number]
/** Filling the row, wholly visible, or in its own size. */
export const backdropFits = ['cover', 'contain', 'auto'] as const
export type BackdropFit = (typeof backdropFits)[number]

export type StyleKey = keyof Style
/** Where a value comes from. */
export type StyleLevel = 'letterhead' | 'letter' | 'row' | 'block'
/** What is handed down from level to level. */
export const inherited = ['ink', 'accent', 'headingFont', 'textFont', 'size', 'corner'] as const
export type InheritedStyle = Required<Pick<Style, (typeof inherited)[number]>> & {
  /** What is behind it, and what comes of that: ink that steps back, lines, and what is written on the accent. */
  behind: string
  quiet: string
  line: string
  onAccent: string
}

/**
 * What holds at the end of the levels, the letter's first: the nearest level that says something has the say. On a ground that
 * is said by what it is for stand the letterhead's inks for it, where that level says none.
 */
export function inheritedStyle(
  letterhead: Letterhead,
  ...levels: (Style | undefined)[]
): InheritedStyle {
  const found = letterheadStyle(letterhead)
  let behind = letterhead.paper
  for (const [n, level] of levels.entries()) {
    // The letter's own is around the paper.
    const ground = n === 0 ? undefined : colorOfGround(letterhead, level?.ground)
    if (ground !== undefined) behind = ground
    if (ground !== undefined && isGround(level?.ground)) {
      found.ink = inkOn(letterhead, ground)
      found.accent = accentOn(letterhead, ground)
    }
    for (const key of inherited)
      if (level?.[key] !== undefined) Object.assign(found, { [key]: level[key] })
  }
  const isUsual = contrast(QUIET, behind) >= 4.5
  return {
    ...found,
    behind,
    quiet: isUsual ? QUIET : quietInk(found.ink, behind),
    line: isUsual ? LINE : quietInk(found.ink, behind),
    onAccent: wordsOn(found.accent),
  }
}

/** Of lines around and between, and of what is said in small, on light grounds. */
export const LINE = '#dfe3d9'
export const QUIET = '#5b6459'

/** At which level a value is said; the letterhead says everything that nobody else does. */
export function saidAt(
  key: StyleKey,
  levels: { level: StyleLevel; style: Style | undefined }[],
): StyleLevel {
  return levels.findLast(({ style }) => style?.[key] !== undefined)?.level ?? 'letterhead'
}

function letterheadStyle(
  letterhead: Letterhead,
): Required<Pick<Style, (typeof inherited)[number]>> {
  const { ink, accent, headingFont, textFont, size, corner } = letterhead
  return { ink, accent, headingFont, textFont, size, corner }
}

/** How large a heading is beside running text, px: large, middle, or as large as that. */
export function headingSize(size: number, level: HeadingLevel): number {
  return Math.round(size * { 1: 2.1, 2: 1.33, 3: 1 }[level])
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

type SizeKey = 'size' | 'corner' | 'space' | 'border' | 'narrowSize' | 'narrowSpace'
/** Sizes in px, from the least to the most. */
export const ranges: Record<SizeKey, [least: number, most: number]> = {
  size: [10, 28],
  corner: [0, 40],
  space: [0, 120],
  border: [0, 12],
  narrowSize: [10, 28],
  narrowSpace: [0, 120],
}

/** Where a picture comes from: our own pictures, or the web; else empty. Nothing that could end an attribute or a url(). */
export function pictureSource(value: unknown): string {
  return typeof value === 'string' && /^(\/p\/|https?:\/\/)[^\s"'()<>\\]{1,2000}$/.test(value)
    ? value
    : ''
}

/** A style out of what came from outside; what it can't hold is dropped. Undefined where nothing is left. */
export function cleanStyle(json: unknown): Style | undefined {
  if (typeof json !== 'object' || json === null) return undefined
  const given = json as Record<string, unknown>
  const style: Style = {}
  for (const key of ['ink', 'accent', 'ground', 'borderColor'] as const)
    if (isColor(given[key])) style[key] = given[key].toLowerCase()
  if (isGround(given.ground)) style.ground = given.ground
  for (const key of ['headingFont', 'textFont'] as const)
    if (isFont(given[key])) style[key] = given[key]
  for (const [key, [least, most]] of Object.entries(ranges) as [SizeKey, [number, number]][]) {
    const value = given[key]
    if (typeof value === 'number' && Number.isFinite(value))
      style[key] = Math.round(Math.min(most, Math.max(least, value)))
  }
  for (const key of ['align', 'narrowAlign'] as const) {
    const align = given[key]
    if (align === 'left' || align === 'center' || align === 'right') style[key] = align
  }
  for (const key of ['capitals', 'edge'] as const) if (given[key] === true) style[key] = true
  const backdrop = pictureSource(given.backdrop)
  if (backdrop) {
    style.backdrop = backdrop
    const place = backdropPlaces.find((one) => one === given.backdropAt)
    const fit = backdropFits.find((one) => one === given.backdropFit)
    if (place) style.backdropAt = place
    if (fit) style.backdropFit = fit
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
