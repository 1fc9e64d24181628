import { blocksOf, plainInline, shownEntries, type Letter } from '../letters'

/** What of a letter is read as text, and where it stands; fill-ins are a hole that no pattern reaches over. */
export interface LetterText {
  blockId: string | null
  where: string
  text: string
}

export const HOLE = '\uFFFC'

/** Subject, preview text and every text of the blocks but the footer's, in reading order. */
export function textsOf({ subject, previewText, document }: Letter): LetterText[] {
  const bare = (text: string) => text.replace(/\{\{[^{}]*\}\}/g, HOLE)
  const texts: LetterText[] = [
    { blockId: null, where: 'subject', text: bare(subject) },
    { blockId: null, where: 'preview text', text: bare(previewText) },
  ]
  for (const block of blocksOf(document)) {
    const say = (text: string) => texts.push({ blockId: block.id, where: block.kind, text })
    if (block.kind === 'button') say(block.label)
    else if (block.kind === 'product') [block.name, block.about].forEach(say)
    else if (block.kind === 'feed')
      shownEntries(block).forEach(({ title, about }) =>
        [title, block.about ? about : ''].forEach(say),
      )
    else if (block.kind === 'table') block.cells.flat().forEach(say)
    else if ('text' in block && block.kind !== 'footer')
      for (const node of block.text.content)
        say(plainInline({ type: 'doc', content: [node] }, () => HOLE))
  }
  return texts.filter(({ text }) => text.trim() !== '')
}
