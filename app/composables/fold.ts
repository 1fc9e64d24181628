/** What one sees of a letter before moving it, px: a phone's screen, or a reading pane, less what the program itself takes. */
export const FOLD = 560
export const foldWidths = { wide: 700, narrow: 375 } as const

/** Where the first link stands on each screen, px from the top; null where there is none, undefined where not measured. */
export type FoldPlaces = Record<keyof typeof foldWidths, number | null | undefined>

/** The lower edge of the first link to the web, px from the top of a drawn letter; null where there is none. */
export function firstLinkIn(drawn: Document): number | null {
  const edges = [...drawn.querySelectorAll('a[href^="http"]')]
    .map((link) => link.getBoundingClientRect())
    .filter(({ height }) => height > 0)
    .map(({ bottom }) => Math.round(bottom))
  return edges.length ? Math.min(...edges) : null
}
