import { newBlock, type Block, type Letter } from './document'
import { richText } from './rich-text'

/** A letter with a bit of everything, to look at a letterhead with. */
export function sampleLetter(): Letter {
  const link = { type: 'link' as const, attrs: { href: 'https://letters.example/' } }
  const blocks: Block[] = [
    { ...newBlock('heading', 'a'), text: richText('A heading, as it will stand') } as Block,
    {
      ...newBlock('text', 'b'),
      text: richText([
        { type: 'text', text: 'Running text, long enough to fill a line or two, with ' },
        { type: 'text', text: 'a link', marks: [link] },
        { type: 'text', text: ' in it and something ' },
        { type: 'text', text: 'bold', marks: [{ type: 'bold' }] },
        { type: 'text', text: '.' },
      ]),
    } as Block,
    { ...newBlock('button', 'c'), label: 'The one thing to do', href: link.attrs.href } as Block,
    { ...newBlock('heading', 'd'), level: 2, text: richText('A smaller heading') } as Block,
    {
      ...newBlock('quote', 'e'),
      text: richText('What somebody said about it.'),
      by: 'A reader',
    } as Block,
    newBlock('footer', 'footer'),
  ]
  const rows = blocks.map((block) => ({
    id: `r-${block.id}`,
    columns: [{ share: 1, blocks: [block] }],
  }))
  return { subject: 'Sample', previewText: '', document: { version: 1, rows } }
}
