import type { Letterhead } from '../letterhead'
import { accentOn, groundColor } from '../roles'
import { drawings } from './drawings'

/**
 * Drawings that ship with Satchel, for letters that have no pictures yet: made by code, in the colours of whatever letterhead the
 * letter is in. A letter names one as `/p/art-hills`; what goes out has its colours in its name, so that it is the same for
 * ever: `/p/art-hills.22384f.e0a93b.eef0f3.16202b.ffffff-1200`.
 */
export const artNames = Object.keys(drawings)
export const artSource = (name: keyof typeof drawings): string => `/p/art-${name}`

/** What a drawing is drawn in: two colours, a soft and a deep ground, and paper. */
export interface Palette {
  first: string
  second: string
  soft: string
  deep: string
  paper: string
}

/** A drawing: how high for its width, and what it is made of, in a box 1000 wide. */
export interface Drawing {
  shape: number
  draw: (colors: Palette) => string
}

const WIDTH = 1_000

export const isArt = (src: string): boolean => /^\/p\/art-[a-z-]+$/.test(src)

/** How high a drawing is for its width; undefined for what is none. */
export function shapeOfArt(src: string): number | undefined {
  return isArt(src) ? drawings[src.slice('/p/art-'.length)]?.shape : undefined
}

/** The source of a drawing in the colours of a letterhead. */
export function inColors(src: string, look: Letterhead): string {
  const { first, second, soft, deep, paper } = paletteOf(look)
  return [src, ...[first, second, soft, deep, paper].map((color) => color.slice(1))].join('.')
}

export function paletteOf(look: Letterhead): Palette {
  const deep = groundColor(look, 'strong')
  return {
    ...{ first: look.accent, second: look.second || accentOn(look, deep) },
    ...{ soft: groundColor(look, 'soft'), deep, paper: look.paper },
  }
}

const named = /^art-([a-z-]+)((?:\.[0-9a-f]{6}){5})-(\d{2,4})$/

/** Reads the name under which a drawing is asked for; null where it is none. */
export function readArtName(name: string): { drawing: string; colors: Palette; px: number } | null {
  const found = named.exec(name)
  const drawing = found?.[1] ?? ''
  if (!found || !Object.hasOwn(drawings, drawing)) return null
  const [first, second, soft, deep, paper] = found[2]!
    .slice(1)
    .split('.')
    .map((color) => `#${color}`) as [string, string, string, string, string]
  return { drawing, colors: { first, second, soft, deep, paper }, px: Number(found[3]) }
}

/** A drawing as SVG. */
export function drawArt(name: string, colors: Palette): string {
  const { shape, draw } = drawings[name]!
  const high = Math.round(WIDTH * shape)
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${WIDTH} ${high}" width="${WIDTH}" height="${high}">${draw(colors)}</svg>`
}
