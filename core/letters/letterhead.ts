import { isStampId } from './stamps'
import { cleanStyle, isColor } from './style'

/** The look of an account's letters. */
export interface Letterhead {
  /** Around the paper. */
  ground: string
  paper: string
  ink: string
  accent: string
  /** Beside the accent: in drawings, and where the accent can't be read. Empty: none. */
  second: string
  /** Stacks that end in a generic family, since mail programs have few fonts. */
  headingFont: string
  textFont: string
  /** Of running text, px. */
  size: number
  /** Of the corners of buttons, px. */
  corner: number
  /** Width of the paper in pixels. */
  width: number
  /** The path of the logo, which stands at the head of every letter; empty: none. */
  logo: string
  /** How wide the logo is, px. */
  logoWidth: number
  logoAlign: 'left' | 'center' | 'right'
  /** The stamps that stand above and below every letter, above its footer; null: none. */
  head: number | null
  foot: number | null
}

export const defaultLetterhead: Letterhead = {
  ground: '#eceee7',
  paper: '#ffffff',
  ink: '#1a1e18',
  accent: '#22384f',
  second: '',
  headingFont: 'Georgia, "Times New Roman", serif',
  textFont: 'Verdana, Geneva, sans-serif',
  size: 15,
  corner: 4,
  width: 600,
  logo: '',
  logoWidth: 180,
  logoAlign: 'left',
  head: null,
  foot: null,
}

/** A letterhead out of what is on file or came from outside: what is missing or odd is as it is by default. */
export function readLetterhead(json: unknown): Letterhead {
  const given = (typeof json === 'object' && json !== null ? json : {}) as Partial<Letterhead>
  const style = cleanStyle(given) ?? {}
  const within = (value: unknown, least: number, most: number, otherwise: number) =>
    typeof value === 'number' && Number.isFinite(value)
      ? Math.round(Math.min(most, Math.max(least, value)))
      : otherwise
  return {
    ground: isColor(style.ground) ? style.ground : defaultLetterhead.ground,
    paper: isColor(given.paper) ? given.paper.toLowerCase() : defaultLetterhead.paper,
    ink: style.ink ?? defaultLetterhead.ink,
    accent: style.accent ?? defaultLetterhead.accent,
    second: isColor(given.second) ? given.second.toLowerCase() : '',
    headingFont: style.headingFont ?? defaultLetterhead.headingFont,
    textFont: style.textFont ?? defaultLetterhead.textFont,
    size: style.size ?? defaultLetterhead.size,
    corner: style.corner ?? defaultLetterhead.corner,
    width: within(given.width, 480, 720, defaultLetterhead.width),
    logo: typeof given.logo === 'string' && /^\/p\/[\w.-]+$/.test(given.logo) ? given.logo : '',
    logoWidth: within(given.logoWidth, 40, 600, defaultLetterhead.logoWidth),
    logoAlign:
      given.logoAlign === 'center' || given.logoAlign === 'right' ? given.logoAlign : 'left',
    head: isStampId(given.head) ? given.head : null,
    foot: isStampId(given.foot) ? given.foot : null,
  }
}

/** A letterhead besides the account's own. */
export interface NamedLetterhead {
  id: number
  name: string
  look: Letterhead
  version: string
}
