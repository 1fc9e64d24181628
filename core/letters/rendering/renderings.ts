import { inverted, lightness, readColor } from '../color'

/** A class of mail program, by what it does to a letter. */
export const renderings = [
  { key: 'whole', name: 'Everything', about: 'programs that keep style sheets and pictures' },
  { key: 'stripped', name: 'Style sheets stripped', about: 'only what stands in the tags is left' },
  { key: 'pictures-off', name: 'Pictures off', about: 'until somebody asks for them' },
  { key: 'dark', name: 'Dark, all inverted', about: 'every colour inverted' },
  { key: 'dark-light', name: 'Dark, light grounds only', about: 'what is dark already stays' },
  { key: 'old', name: 'Old word-processor engine', about: 'tables only, square corners' },
] as const
export type RenderingKey = (typeof renderings)[number]['key']

/** A letter's HTML as a class of mail program has it after what it does to it. Pure: text in, text out. */
export function asDrawnBy(key: RenderingKey, html: string): string {
  switch (key) {
    case 'whole':
      return html
    case 'stripped':
      return withoutStyleSheets(html)
    case 'pictures-off':
      return withoutPictures(html)
    case 'dark':
      return inDark(html, inverted)
    case 'dark-light':
      return inDark(html, (color, of) => {
        const light = lightness(color) > 0.5
        return light === (of === 'ground') ? inverted(color) : color
      })
    case 'old':
      return asOldEngine(html)
  }
}

function withoutStyleSheets(html: string): string {
  return html
    .replace(/<style\b[^>]*>.*?<\/style>/gis, '')
    .replace(/<link\b[^>]*>/gi, '')
    .replace(/\sclass="[^"]*"/gi, '')
}

/** The words of a picture stand where it would, in a box of its size. */
function withoutPictures(html: string): string {
  return html.replace(/<img\b[^>]*>/gi, (tag) => {
    const alt = attribute(tag, 'alt')
    const width = Number(attribute(tag, 'width'))
    if (width <= 1) return ''
    const box = `display:inline-block;width:${width || 100}px;max-width:100%;padding:8px;border:1px solid #b9beb3;box-sizing:border-box;font-size:13px`
    return `<span style="${box}">${alt}</span>`
  })
}

/** With every colour as `turn` makes it; what has none is light on dark. */
function inDark(html: string, turn: (color: string, of: 'ground' | 'ink') => string): string {
  const turned = (text: string, of: 'ground' | 'ink') => {
    const color = readColor(text)
    return color ? turn(color, of) : text
  }
  const css = (text: string) =>
    text.replace(
      /(^|[;{\s"])((?:background|border|outline)[\w-]*|color)(\s*:\s*)([^;}"]+)/gi,
      (_, before: string, name: string, colon: string, value: string) => {
        const of = name.toLowerCase() === 'color' ? 'ink' : 'ground'
        const next = value.replace(/#[0-9a-f]{3,8}\b|rgba?\([^)]*\)|\b(?:white|black)\b/gi, (one) =>
          turned(one, of),
        )
        return before + name + colon + next
      },
    )
  return html
    .replace(/style="[^"]*"/gi, css)
    .replace(
      /(<style\b[^>]*>)(.*?)(<\/style>)/gis,
      (_, open: string, text: string, close: string) => open + css(text) + close,
    )
    .replace(
      /(bgcolor=")([^"]*)(")/gi,
      (_, open: string, color: string, close: string) => open + turned(color, 'ground') + close,
    )
    .replace(/<head[^>]*>/i, '$&<style>body{background:#151715;color:#e6e9e0}</style>')
}

/** What is meant for the old engine is read, what is hidden from it is not, and what it does not know is gone. */
function asOldEngine(html: string): string {
  return html
    .replace(/<!--\[if !mso[^\]]*\]><!-->.*?<!--<!\[endif\]-->/gis, '')
    .replace(/<!--\[if [^\]]*mso[^\]]*\]>(.*?)<!\[endif\]-->/gis, '$1')
    .replace(/<\/?(?:v|o|w):[^>]*>/gi, '')
    .replace(/<xml>.*?<\/xml>/gis, '')
    .replace(/@media[^{]*\{(?:[^{}]*\{[^{}]*\})*[^{}]*\}/gi, '')
    .replace(
      /(^|[;"\s])(?:border-radius|background-image|background-size|background-position|max-width|box-shadow|opacity)\s*:[^;"}]*;?/gi,
      '$1',
    )
    .replace(/(background\s*:[^;"]*?)\s*url\([^)]*\)/gi, '$1')
}

function attribute(tag: string, name: string): string {
  return new RegExp(`\\s${name}="([^"]*)"`, 'i').exec(tag)?.[1] ?? ''
}
