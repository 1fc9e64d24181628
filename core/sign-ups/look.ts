import { contrast } from '../letters/color'
import type { Letterhead } from '../letters/letterhead'
import type { SignUpForm } from './form'

/** How a form looks, all of it said: its own look over the letterhead's. */
export interface DrawnLook {
  paper: string
  ink: string
  accent: string
  onAccent: string
  headingFont: string
  textFont: string
  corner: number
  /** The path of the logo above it; empty: none. */
  logo: string
  logoWidth: number
}

/** What stands on a colour can be read (WCAG 2.2, 1.4.3). */
export const READABLE = 4.5

export function drawnLook({ look }: Pick<SignUpForm, 'look'>, letterhead: Letterhead): DrawnLook {
  const accent = look.accent ?? letterhead.accent
  const light = contrast('#ffffff', accent)
  return {
    paper: look.paper ?? letterhead.paper,
    ink: look.ink ?? letterhead.ink,
    accent,
    onAccent: light >= READABLE || light >= contrast('#101010', accent) ? '#ffffff' : '#101010',
    headingFont: look.headingFont ?? letterhead.headingFont,
    textFont: look.textFont ?? letterhead.textFont,
    corner: look.corner ?? letterhead.corner,
    logo: look.logo ? letterhead.logo : '',
    logoWidth: Math.min(letterhead.logoWidth, 200),
  }
}
