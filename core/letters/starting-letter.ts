import { newBlock, rowOf, type Block, type Letter } from './document'
import { richText } from './rich-text'

/**
 * What a new letter holds: a heading, a greeting that fills in the first name, a button and the
 * footer, so that nobody begins on an empty page.
 */
export function startingLetter(): Letter {
  const blocks: Block[] = [
    { ...newBlock('heading', 'title'), text: richText('What this letter is about') } as Block,
    {
      ...newBlock('text', 'opening'),
      text: richText(
        [
          { type: 'text', text: 'Hello ' },
          { type: 'fillIn', attrs: { expression: 'person.first_name | default: "there"' } },
          { type: 'text', text: ',' },
        ],
        'Say the one thing that matters first.',
      ),
    } as Block,
    newBlock('button', 'action'),
    newBlock('footer', 'footer'),
  ]
  return { subject: '', previewText: '', document: { version: 1, rows: blocks.map(rowOf) } }
}
