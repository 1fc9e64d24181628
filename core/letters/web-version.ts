import { removeBlock } from './changes'
import { blocksOf, type Letter, type LetterDocument } from './document'
import { plainInline } from './rich-text'
import { conditionsOf, shownDocument } from './shown-to'

/**
 * A letter as it is for nobody in particular: no rule holds, so of alternatives the one for everyone else is
 * shown, and what was for some stays with them. Products are picked for nobody.
 */
export function webDocument(document: LetterDocument): LetterDocument {
  const shown = shownDocument(
    document,
    conditionsOf(document).rules.map(() => false),
  )
  const picked = blocksOf(shown).filter(({ kind }) => kind === 'picks')
  return picked.reduce((left, { id }) => removeBlock(left, id), shown)
}

/** What is shown where a letter's address is shared: title, description, and the path or URL of a picture. */
export function shareCard(letter: Letter): {
  title: string
  about: string
  picture: string | null
} {
  const document = webDocument(letter.document)
  const blocks = blocksOf(document)
  const plain = (text: string) =>
    text
      .replace(/\{\{[^{}]*\}\}/g, '')
      .replace(/\s+/g, ' ')
      .trim()
  const opening = blocks.find(({ kind }) => kind === 'text')
  const about =
    plain(letter.previewText) ||
    (opening?.kind === 'text' ? plainInline(opening.text, () => '').slice(0, 200) : '')
  const picture = blocks.find((block) => 'src' in block && block.src !== '')
  return {
    title: plain(letter.subject) || 'A letter',
    about,
    picture: picture && 'src' in picture ? picture.src : null,
  }
}

/** A letter's HTML for nobody in particular: a fill-in says its fallback, and nothing where it has none. */
export function forNobody(html: string): string {
  return html.replace(/\{\{([^{}]*)\}\}/g, (_, expression: string) => {
    const fallback = /\|\s*default:\s*&quot;(.*?)&quot;/.exec(expression)
    return fallback?.[1] ?? ''
  })
}
