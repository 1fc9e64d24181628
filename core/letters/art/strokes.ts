/** What drawings are made of, as SVG. */
export const box = (
  x: number,
  y: number,
  width: number,
  height: number,
  color: string,
  corner = 0,
): string =>
  `<rect x="${x}" y="${y}" width="${width}" height="${height}"${corner ? ` rx="${corner}"` : ''} fill="${color}"/>`

export const disc = (x: number, y: number, r: number, color: string): string =>
  `<circle cx="${x}" cy="${y}" r="${r}" fill="${color}"/>`

export const path = (d: string, color: string): string => `<path d="${d}" fill="${color}"/>`

export const line = (d: string, color: string, width: number): string =>
  `<path d="${d}" fill="none" stroke="${color}" stroke-width="${width}" stroke-linecap="round" stroke-linejoin="round"/>`

/** The long wave: from one side to the other, down to the foot; `rise`: how far it swings, less than 0 the other way. */
export const band = (
  width: number,
  top: number,
  foot: number,
  color: string,
  rise: number,
): string =>
  path(
    `M0 ${top}C${width * 0.22} ${top - rise} ${width * 0.36} ${top + rise * 0.7} ${width * 0.55} ${top}S${width * 0.84} ${top - rise} ${width} ${top + rise * 0.2}V${foot}H0z`,
    color,
  )

/** Points of light, by x and y in turn; every third is larger. */
export const sky = (color: string, at: number[]): string[] =>
  at.flatMap((x, n) => (n % 2 ? [] : [disc(x, at[n + 1]!, n % 3 ? 4 : 7, color)]))
