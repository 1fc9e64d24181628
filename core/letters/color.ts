/** A colour as six hex digits; null for what is none (names but black and white, gradients). */
export function readColor(text: string): string | null {
  const given = text.trim().toLowerCase()
  if (given === 'white') return '#ffffff'
  if (given === 'black') return '#000000'
  if (/^#[0-9a-f]{6}$/.test(given)) return given
  const short = /^#([0-9a-f])([0-9a-f])([0-9a-f])$/.exec(given)
  if (short)
    return `#${short
      .slice(1)
      .map((digit) => digit + digit)
      .join('')}`
  const rgb = /^rgba?\(\s*(\d{1,3})[\s,]+(\d{1,3})[\s,]+(\d{1,3})(?:[\s,/]+([\d.]+%?))?\s*\)$/.exec(
    given,
  )
  if (!rgb || rgb[4] === '0') return null
  return hex(rgb.slice(1, 4).map((part) => Math.min(255, Number(part))))
}

/** How light a colour is, 0 to 1 (HSL). */
export function lightness(color: string): number {
  const parts = channels(color)
  return (Math.max(...parts) + Math.min(...parts)) / 2 / 255
}

/** The colour of the same hue and saturation whose lightness is the other way round (HSL). */
export function inverted(color: string): string {
  const parts = channels(color)
  // Turning the lightness round moves all three channels by as much: max and min change places about the middle.
  const shift = 255 - Math.max(...parts) - Math.min(...parts)
  return hex(parts.map((part) => part + shift))
}

/** The contrast of two colours, 1 to 21 (WCAG 2.2, 1.4.3). */
export function contrast(a: string, b: string): number {
  const [light, dark] = [luminance(a), luminance(b)].sort((x, y) => y - x) as [number, number]
  return (light + 0.05) / (dark + 0.05)
}

/** A colour so far on its way to another, 0 to 1. */
export function mixed(from: string, to: string, share: number): string {
  const end = channels(to)
  return hex(channels(from).map((part, i) => part + (end[i]! - part) * share))
}

function luminance(color: string): number {
  const [r, g, b] = channels(color).map((part) => {
    const value = part / 255
    return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4
  }) as [number, number, number]
  return 0.2126 * r + 0.7152 * g + 0.0722 * b
}

function channels(color: string): number[] {
  return [1, 3, 5].map((at) => parseInt(color.slice(at, at + 2), 16))
}

function hex(parts: readonly number[]): string {
  const digits = (part: number) =>
    Math.round(Math.min(255, Math.max(0, part)))
      .toString(16)
      .padStart(2, '0')
  return `#${parts.map(digits).join('')}`
}
