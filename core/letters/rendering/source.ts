import type { Letter } from '../document'
import { linksOf } from '../links'
import { letterToMjml, mjmlToHtml } from './compile'
import { escapeHtml } from './escape'
import { rendering, type LetterFrame } from './frame'
import { documentToText } from './plain-text'

/**
 * A letter as a file for other programs: links lead where they lead, fill-ins stand in Liquid, what is for
 * some readers only stands between two comments, and nothing is counted. `linkTo` says otherwise where its n-th link leads.
 */
export async function letterSource(
  letter: Letter,
  given: LetterFrame,
  format: 'mjml' | 'html' | 'text',
  linkTo = (url: string, _n: number) => url,
): Promise<string> {
  // Other programs know nothing of who speaks what.
  const frame = { ...given, footer: { ...given.footer, byReader: false } }
  const { mjml, numbers } = letterToMjml(letter, frame)
  const links = linksOf(letter.document).map(({ url }) => url)
  const readable = (
    text: string,
    write: (plain: string) => string,
    comment: (words: string) => string,
  ) =>
    text
      .replace(
        /\uE000f(\d+)\uE001/g,
        (_, n: string) => `{{ ${write(numbers.expressions[Number(n)]!)} }}`,
      )
      .replace(/\uE000l(\d+)\uE001/g, (_, n: string) =>
        write(linkTo(links[Number(n)] ?? '', Number(n))),
      )
      .replace(
        /\uE000p(\d+)\uE001/g,
        (_, n: string) => `{{ ${write(numbers.expressions[Number(n)]!)} }}`,
      )
      .replace(/\uE000[uy]\uE001/g, '#leave')
      .replace(/\uE000b\d+\uE001/g, comment('for some readers'))
      .replace(/\uE000e\uE001/g, comment('for everybody again'))
  const inMarkup = (text: string) => readable(text, escapeHtml, (words) => `<!-- ${words} -->`)
  switch (format) {
    case 'mjml':
      return inMarkup(withoutOpened(mjml))
    case 'html':
      return inMarkup(await mjmlToHtml(withoutOpened(mjml)))
    case 'text':
      return readable(
        documentToText(letter.document, rendering(letter.document, frame, numbers)),
        (plain) => plain,
        () => '',
      )
  }
}

/** Without the picture by which openings are counted. */
function withoutOpened(mjml: string): string {
  return mjml.replace(
    /<mj-section[^>]*><mj-column><mj-image src="\uE000o\uE001"[^>]*\/><\/mj-column><\/mj-section>\n?/,
    '',
  )
}
