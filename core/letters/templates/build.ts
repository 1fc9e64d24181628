import {
  newBlock,
  type Align,
  type Block,
  type BlockKind,
  type HeadingLevel,
  type Letter,
  type Row,
} from '../document'
import { richText, type Inline, type RichText } from '../rich-text'
import { artSource } from '../art'
import type { Style } from '../style'

/** What one wants to do with a letter. */
export const purposes = ['Greet', 'Tell', 'Sell', 'Invite', 'Win back'] as const
export type Purpose = (typeof purposes)[number]

/** A letter to start from. What stands in square brackets is to be replaced; the proof finds what is left. */
export interface Template {
  key: string
  name: string
  purpose: Purpose
  about: string
  /** Other words by which it is found. */
  words: string
  letter: Letter
}

type Part = Block | Row

/** A letter out of blocks and rows from top to bottom; the footer comes by itself. */
export function letterOf(
  subject: string,
  previewText: string,
  parts: Part[],
  style?: Style,
): Letter {
  // Under a card everything stands in the middle, the footer too.
  const isCard = parts.every((part) => !isAtTheLeft(part))
  const foot = block('footer', { text: richText(footer), ...(isCard ? { style: center } : {}) })
  const rows = [...parts, foot].map(asRow)
  return numbered({
    subject,
    previewText,
    document: { version: 1, ...(style ? { style } : {}), rows },
  })
}

const footer =
  'You get this letter because you asked for it. If it is not for you any more, one press below is enough.'

export function block<K extends BlockKind>(
  kind: K,
  of: Partial<Omit<Extract<Block, { kind: K }>, 'id' | 'kind'>> = {},
): Block {
  return { ...newBlock(kind, ''), ...of } as Block
}

export const heading = (text: string, level: HeadingLevel = 1, align: Align = 'left') =>
  block('heading', { text: richText(words(text)), level, align })
/** What stands over a heading, in small capitals. */
export const over = (text: string, align: Align = 'left') =>
  block('heading', {
    ...{ text: richText(words(text)), level: 3, align, style: { capitals: true } },
  })
export const text = (...lines: string[]) =>
  block('text', { text: richText(...lines.map((line) => words(line))) })
/** Text in the middle. */
export const middle = (...lines: string[]) => standing('center', lines)
/** Text that ends at the right. */
export const right = (...lines: string[]) => standing('right', lines)
const standing = (textAlign: 'center' | 'right', lines: string[]) =>
  block('text', {
    text: {
      type: 'doc',
      content: lines.map((line) => ({
        ...{ type: 'paragraph' as const, attrs: { textAlign } },
        content: words(line),
      })),
    },
  })
/** A few figures or letters, as large as a picture. */
export const poster = (text: string) =>
  block('heading', { text: richText(words(text)), level: 1, style: { size: 28 } })
export const button = (label: string, more: { align?: Align; full?: true; outline?: true } = {}) =>
  block('button', { label, ...more })
/** A drawing that ships with Satchel, until there is a picture of one’s own. */
export const art = (name: string, alt: string, width = 100) =>
  block('picture', { src: artSource(name), alt, width })
/** The same, over the whole width of the paper. */
export const wide = (name: string, alt: string) =>
  block('picture', { src: artSource(name), alt, style: { edge: true } })
/** A row of one column, with everything in it. */
export const together = (style: Style, ...blocks: Block[]): Row => ({
  ...{ id: '', style },
  columns: [{ share: 1, blocks }],
})
/** Facts, each with its name before it. */
export const facts = (...of: [name: string, fact: string][]) =>
  block('table', { head: false, cells: of })
export const product = (drawing: string, was?: string) =>
  block('product', {
    ...{ src: artSource(drawing), name: '[Name]', about: '[Why one would want it]' },
    ...{ price: '[£0]', ...(was ? { was } : {}), label: 'See it' },
  })
/** A picture of somebody, and beside it what they say. */
export const signed = (words: string, name: string): Row => ({
  ...columns([1, 4], [art('face', 'A portrait of who writes', 100)], [text(words, name)]),
  ...{ style: { ground: 'soft', space: 16 }, narrow: 'keep' as const },
})
export const quote = (said: string, by: string) => block('quote', { text: richText(said), by })
export const divider = () => block('divider')
export const space = (height: number) => block('space', { height })

/** A list of points. */
export function points(...lines: string[]): Block {
  const items = lines.map((line) => ({
    type: 'listItem' as const,
    content: richText(words(line)).content,
  }))
  const list: RichText = { type: 'doc', content: [{ type: 'bulletList', content: items }] }
  return block('text', { text: list })
}

/** A row of columns, with what it looks like. */
export function columns(shares: number[], ...of: Block[][]): Row {
  const sum = shares.reduce((total, share) => total + share, 0)
  return {
    id: '',
    columns: of.map((blocks, i) => ({ share: shares[i]! / sum, blocks })),
  }
}

export function looking(row: Part, style: Style, more: Partial<Row> = {}): Row {
  return { ...asRow(row), style, ...more }
}

/** `{first name}` in a text is a fill-in with its fallback; the rest is words. */
function words(line: string): Inline[] {
  return line
    .split(/(\{first name\})/)
    .filter(Boolean)
    .map((piece) =>
      piece === '{first name}'
        ? { type: 'fillIn', attrs: { expression: 'person.first_name | default: "there"' } }
        : { type: 'text', text: piece },
    )
}

function asRow(part: Part): Row {
  return 'columns' in part ? part : { id: '', columns: [{ share: 1, blocks: [part] }] }
}

const center: Style = { align: 'center' }

/** Whether words begin at the left in a part. */
function isAtTheLeft(part: Part): boolean {
  const blocks = 'columns' in part ? part.columns.flatMap((column) => column.blocks) : [part]
  return blocks.some(
    (one) =>
      one.kind === 'table' ||
      (one.kind === 'text' &&
        one.text.content.some((node) => node.type !== 'paragraph' || !node.attrs?.textAlign)) ||
      (one.kind === 'heading' && one.align === 'left'),
  )
}

/** Every row and block with an id of its own. */
function numbered(letter: Letter): Letter {
  let n = 0
  const rows = letter.document.rows.map((row) => ({
    ...row,
    id: `r${++n}`,
    columns: row.columns.map((column) => ({
      ...column,
      blocks: column.blocks.map((one) => ({
        ...one,
        id: one.kind === 'footer' ? 'footer' : `b${++n}`,
      })),
    })),
  }))
  return { ...letter, document: { ...letter.document, rows } }
}
