import { newBlock, type Block, type BlockKind, type Letter, type Row } from '../document'
import { richText, type Inline, type RichText } from '../rich-text'
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
  const rows = [...parts, block('footer', { text: richText(footer) })].map(asRow)
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

export const heading = (text: string, level: 1 | 2 = 1, more: Partial<Block> = {}) =>
  ({ ...block('heading', { text: richText(words(text)), level }), ...more }) as Block
export const text = (...lines: string[]) =>
  block('text', { text: richText(...lines.map((line) => words(line))) })
export const button = (label: string, more: { align?: 'left' | 'center' } = {}) =>
  block('button', { label, ...more })
export const picture = (alt: string, width = 100) => block('picture', { alt, width })
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
