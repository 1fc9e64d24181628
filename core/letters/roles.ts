import { contrast, mixed } from './color'
import type { Letterhead } from './letterhead'

/**
 * Grounds by what they are for, so that what is drawn for one letterhead looks at home in every other: *soft* sets something
 * apart, *strong* carries it, *accent* shouts.
 */
export const grounds = ['paper', 'soft', 'strong', 'accent'] as const
export type Ground = (typeof grounds)[number]
export const isGround = (value: unknown): value is Ground =>
  (grounds as readonly unknown[]).includes(value)

/** What text must stand out by (WCAG 2.2, 1.4.3), and what can be read with ease. */
const READABLE = 4.5
const EASY = 7
const WHITE = '#ffffff'
const DARK = '#14170f'

/** The colour of a ground in a letterhead. */
export function groundColor(look: Letterhead, ground: Ground): string {
  switch (ground) {
    case 'paper':
      return look.paper
    case 'soft':
      return mixed(look.paper, look.second || look.accent, 0.12)
    case 'strong':
      return strong(look)
    case 'accent':
      return look.accent
  }
}

/** As deep as the accent goes while white is read on it with ease; on dark paper, which a deep accent would muddy, darker paper. */
function strong({ accent, paper }: Letterhead): string {
  if (contrast(WHITE, paper) >= EASY) return mixed(paper, '#000000', 0.4)
  for (let share = 0; share < 1; share += 0.08) {
    const color = mixed(accent, DARK, share)
    if (contrast(WHITE, color) >= EASY + 2) return color
  }
  return DARK
}

/** What is said of a ground: a role, or a colour; undefined where nothing is. */
export function colorOfGround(look: Letterhead, said: string | undefined): string | undefined {
  return isGround(said) ? groundColor(look, said) : said
}

/** The letterhead's ink where it can be read on a colour, or else white or nearly black. */
export function inkOn(look: Letterhead, color: string): string {
  if (contrast(look.ink, color) >= EASY) return look.ink
  return mostReadable(color)
}

/** Its accent where that can be read on a colour; or else its second colour, or the accent as far towards ink as it takes. */
export function accentOn(look: Letterhead, color: string): string {
  for (const one of [look.accent, look.second])
    if (one && contrast(one, color) >= READABLE) return one
  const ink = inkOn(look, color)
  for (let share = 0.1; share < 1; share += 0.1) {
    const towards = mixed(look.second || look.accent, ink, share)
    if (contrast(towards, color) >= READABLE) return towards
  }
  return ink
}

/** What is written on a button of a colour. */
export const wordsOn = (color: string): string =>
  contrast(WHITE, color) >= READABLE ? WHITE : mostReadable(color)

/** Ink that steps back, and still can be read. */
export function quietInk(ink: string, color: string): string {
  for (let share = 0.4; share > 0; share -= 0.05) {
    const towards = mixed(ink, color, share)
    if (contrast(towards, color) >= READABLE + 0.5) return towards
  }
  return ink
}

const mostReadable = (color: string) =>
  contrast(WHITE, color) >= contrast(DARK, color) ? WHITE : DARK
