import type { Align } from '../document'

/**
 * What a block is made of, one part under the other. Parts are written as MJML for what goes out (`rendering/part-mjml.ts`) and
 * drawn on the paper where the letter is edited, so that both have the same sizes and break their lines alike.
 */
export type Part = Words | Rows | Shown | Pressed | Line | Gap

interface Placed {
  /** Space above, below and at both sides, px, and what is behind it all. */
  room: { above: number; side: number; below: number; ground?: string }
}

/** How letters look. `line`: as times the size, or in px. */
export interface Type {
  font: string
  size: number
  line: number | `${number}px`
  ink: string
  weight?: number
}

/** Running text, as HTML. */
export interface Words extends Placed {
  kind: 'words'
  html: string
  align: Align
  type: Type
}

/** The rows of a table, as HTML. */
export interface Rows extends Placed {
  kind: 'rows'
  html: string
  type: Type
}

/** A picture; `fluid`: it fills the screen where columns stand one under the other. */
export interface Shown extends Placed {
  kind: 'picture'
  src: string
  alt: string
  width: number
  corner: number
  border: string
  href: string
  fluid: boolean
  align: Align
  /** How much of the space below is only there beside a higher picture, px. */
  lower: number
}

/** A button; `html`: its words. */
export interface Pressed extends Placed {
  kind: 'button'
  html: string
  align: Align
  href: string
  type: Type
  /** Behind its words; null: what is behind it all. */
  accent: string | null
  corner: number
  border: string
  full: boolean
  /** Between its words and its edges, above and at the side, px. */
  within: [number, number]
}

export interface Line extends Placed {
  kind: 'line'
  color: string
}

export interface Gap extends Placed {
  kind: 'gap'
  height: number
}

/** How many times as high as its letters a line of text is. */
export const LINES = 1.55
