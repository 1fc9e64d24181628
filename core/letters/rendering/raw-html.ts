import sanitizeHtml from 'sanitize-html'
import { countedLink } from '../links'

/**
 * An author's own HTML without anything that could run, send, frame or restyle what is around it. Links to the web
 * lead where `link` says.
 */
export function cleanHtml(html: string, link: (url: string) => string = (url) => url): string {
  return sanitizeHtml(html, {
    transformTags: {
      a: (tagName, attribs) => {
        const url = countedLink(attribs.href)
        return { tagName, attribs: url ? { ...attribs, href: link(url) } : attribs }
      },
    },
    allowedTags: [
      ...['a', 'b', 'blockquote', 'br', 'center', 'code', 'div', 'em', 'font', 'h1', 'h2', 'h3'],
      ...['h4', 'hr', 'i', 'img', 'li', 'ol', 'p', 'pre', 's', 'small', 'span', 'strong', 'sub'],
      ...['sup', 'table', 'tbody', 'td', 'tfoot', 'th', 'thead', 'tr', 'u', 'ul'],
    ],
    allowedAttributes: {
      '*': [
        'align',
        'bgcolor',
        'dir',
        'height',
        'lang',
        'role',
        'style',
        'title',
        'valign',
        'width',
      ],
      a: ['href', 'target'],
      img: ['src', 'alt', 'border'],
      font: ['color', 'face', 'size'],
      table: ['border', 'cellpadding', 'cellspacing'],
      td: ['colspan', 'rowspan'],
      th: ['colspan', 'rowspan', 'scope'],
    },
    allowedSchemes: ['http', 'https', 'mailto', 'tel'],
    allowProtocolRelative: false,
    allowedStyles: { '*': Object.fromEntries(styles.map((name) => [name, [harmless]])) },
  })
}

/** The words of HTML, a line for each of its blocks. */
export function htmlText(html: string): string {
  const lines = cleanHtml(html).replace(
    /<br\b[^>]*>|<\/(p|div|h\d|li|tr|table|pre|blockquote)>/gi,
    '$&\n',
  )
  const entities: Record<string, string> = { amp: '&', lt: '<', gt: '>', quot: '"' }
  return sanitizeHtml(lines, { allowedTags: [], allowedAttributes: {} })
    .replace(/&(amp|lt|gt|quot);/g, (_, name: string) => entities[name]!)
    .replace(/[ \t]+/g, ' ')
    .replace(/ *\n\s*/g, '\n')
    .trim()
}

/** A value without functions: no url(), no expression(), nothing that is fetched or run. */
const harmless = /^[^()\\<>{}@]*$/
const styles = [
  ...['background', 'background-color', 'border', 'border-bottom', 'border-collapse'],
  ...['border-color', 'border-left', 'border-radius', 'border-right', 'border-spacing'],
  ...['border-top', 'color', 'display', 'float', 'font', 'font-family', 'font-size', 'font-style'],
  ...['font-weight', 'height', 'letter-spacing', 'line-height', 'list-style', 'list-style-type'],
  ...['margin', 'margin-bottom', 'margin-left', 'margin-right', 'margin-top', 'max-width'],
  ...['min-width', 'padding', 'padding-bottom', 'padding-left', 'padding-right', 'padding-top'],
  ...['text-align', 'text-decoration', 'text-transform', 'vertical-align', 'white-space', 'width'],
]
