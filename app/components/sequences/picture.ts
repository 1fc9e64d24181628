/** How much finer a PNG is than the page. */
const FINER = 2
/** A canvas can't be larger in most browsers, pixels a side. */
const LARGEST = 16_000

/** A drawing of a map, as SVG that needs nothing else. */
export interface Picture {
  svg: string
  width: number
  height: number
}

/**
 * The map as it is shown, as SVG: its lines and signs as they are, its words where they stand, cut where they are cut. Fonts
 * and colours go along, so that it looks the same anywhere.
 * @param map The element that holds the stops: `width` by `height` pixels, however large it is shown.
 */
export async function pictureOf(
  map: HTMLElement,
  { width, height }: { width: number; height: number },
  title: string,
): Promise<Picture> {
  const box = map.getBoundingClientRect()
  const zoom = box.width / width
  const at = (element: Element) => {
    const { left, top, right, bottom } = element.getBoundingClientRect()
    const across = (x: number) => (x - box.left) / zoom
    const down = (y: number) => (y - box.top) / zoom
    return { left: across(left), top: down(top), right: across(right), bottom: down(bottom) }
  }
  const parts: string[] = []
  for (const element of map.querySelectorAll<SVGElement | HTMLElement>('svg, span, a')) {
    if (element.closest('[data-no-picture]')) continue
    const place = at(element)
    if (element instanceof SVGElement) parts.push(nested(element, place))
    else parts.push(frameOf(element, place), wordsOf(element, place))
  }
  const paper = getComputedStyle(document.documentElement).getPropertyValue('--canvas-50')
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}">
<title>${escaped(title)}</title><style>${await fontsAsText()}</style>
<rect width="100%" height="100%" fill="${escaped(paper.trim() || '#fff')}"/>
${parts.filter(Boolean).join('\n')}
</svg>`
  return { svg, width, height }
}

/** The same as PNG. */
export async function asPng({ svg, width, height }: Picture): Promise<Blob> {
  const image = new Image()
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`
  await image.decode()
  const scale = Math.min(FINER, LARGEST / width, LARGEST / height)
  const canvas = document.createElement('canvas')
  canvas.width = Math.round(width * scale)
  canvas.height = Math.round(height * scale)
  canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height)
  return new Promise((done, fail) =>
    canvas.toBlob((made) => (made ? done(made) : fail(new Error('The picture is too large.')))),
  )
}

interface Place {
  left: number
  top: number
  right: number
  bottom: number
}

function nested(element: SVGElement, { left, top }: Place): string {
  const copy = element.cloneNode(true) as SVGElement
  copy.setAttribute('x', String(left))
  copy.setAttribute('y', String(top))
  copy.removeAttribute('class')
  copy.removeAttribute('style')
  const style = getComputedStyle(element)
  return new XMLSerializer()
    .serializeToString(copy)
    .replace(/var\((--[\w-]+)\)/g, (_, name: string) => style.getPropertyValue(name).trim())
}

/** The ground and border of what has one. */
function frameOf(element: HTMLElement, { left, top, right, bottom }: Place): string {
  const { backgroundColor, borderTopWidth, borderTopColor, borderRadius } =
    getComputedStyle(element)
  if (parseFloat(borderTopWidth) === 0) return ''
  return `<rect x="${left}" y="${top}" width="${right - left}" height="${bottom - top}" rx="${parseFloat(borderRadius) || 0}" fill="${escaped(backgroundColor)}" stroke="${escaped(borderTopColor)}"/>`
}

/** A line of words, where it stands and as much of it as is seen. */
function wordsOf(element: HTMLElement, { top, bottom, left, right }: Place): string {
  const words = element.textContent.trim()
  if (element.children.length || !words || right - left < 2) return ''
  const { fontFamily, fontSize, fontWeight, fontStyle, color, paddingLeft } =
    getComputedStyle(element)
  const seen = element.clientWidth / Math.max(1, element.scrollWidth)
  const shown =
    seen < 1 ? `${words.slice(0, Math.max(1, Math.floor(words.length * seen) - 1))}…` : words
  const middle = (top + bottom) / 2
  return `<text x="${left + parseFloat(paddingLeft)}" y="${middle}" dominant-baseline="central" font-family="${escaped(fontFamily)}" font-size="${parseFloat(fontSize)}" font-weight="${fontWeight}" font-style="${fontStyle}" fill="${escaped(color)}">${escaped(shown)}</text>`
}

/** The fonts that the page has loaded, as rules that hold their files. */
async function fontsAsText(): Promise<string> {
  const loaded = new Set(
    [...document.fonts]
      .filter(({ status }) => status === 'loaded')
      .map(({ family, unicodeRange }) => `${plain(family)} ${plain(unicodeRange)}`),
  )
  const rules = [...document.styleSheets]
    .flatMap((sheet) => [...sheet.cssRules])
    .filter((rule): rule is CSSFontFaceRule => rule instanceof CSSFontFaceRule)
    .filter(({ style }) =>
      loaded.has(
        `${plain(style.getPropertyValue('font-family'))} ${plain(style.getPropertyValue('unicode-range'))}`,
      ),
    )
  const texts = await Promise.all(
    rules.map(async ({ style, cssText, parentStyleSheet }) => {
      const path = /url\(["']?([^"')]+)/.exec(style.getPropertyValue('src'))?.[1]
      if (!path) return ''
      // A file that ships with the page, not an answer of ours.
      // eslint-disable-next-line no-restricted-globals
      const answer = await fetch(new URL(path, parentStyleSheet?.href ?? location.href))
      const data = await asDataUrl(await answer.blob())
      return cssText.replace(/url\([^)]*\)/, `url(${data})`)
    }),
  )
  return texts.join('')
}

const plain = (text: string) => text.replace(/["'\s]/g, '').toLowerCase()

function asDataUrl(blob: Blob): Promise<string> {
  return new Promise((done, fail) => {
    const reader = new FileReader()
    reader.onload = () => done(reader.result as string)
    reader.onerror = () => fail(new Error('A font can’t be read.'))
    reader.readAsDataURL(blob)
  })
}

/** As text of XML 1.0, which holds no control characters (2.2). */
const escaped = (text: string) =>
  text
    .toWellFormed()
    .replace(/[^\P{Cc}\n\t]|[\uFFFE\uFFFF]/gu, '')
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;')
