import { safeLink } from '../clean'
import { newBlock, type Block, type BlockKind, type Row } from '../document'
import { plainInline, type RichText } from '../rich-text'
import { pictureSource, type Style } from '../style'
import { attribute, styleOf, type MarkupElement } from './dom'

/** What a file's markup turns into, from top to bottom: blocks, and rows of several columns. */
export type IncomingPart = Block | Row

/** What could not be understood is written down here, in words. */
export interface Report {
  notUnderstood: string[]
}

export function note(report: Report, words: string) {
  if (!report.notUnderstood.includes(words)) report.notUnderstood.push(words)
}

/** A block of a kind with its content; ids are given at the end. */
export function blockOf<K extends BlockKind>(
  kind: K,
  content: Partial<Omit<Extract<Block, { kind: K }>, 'id' | 'kind'>>,
): Block {
  return { ...newBlock(kind, ''), ...content } as Block
}

/** A block that looks so besides; nothing that it says itself is changed. */
export function looking<B extends Block>(block: B, style: Style): B {
  return Object.keys(style).length ? { ...block, style: { ...style, ...block.style } } : block
}

/** A row of columns with blocks, of the given widths, whatever they sum to. */
export function rowWith(columns: { share: number; blocks: Block[] }[], style?: Style): Row {
  const sum = columns.reduce((total, { share }) => total + share, 0) || 1
  return {
    id: '',
    ...(style ? { style } : {}),
    columns: columns.map(({ share, blocks }) => ({ share: share / sum, blocks })),
  }
}

export function isRow(part: IncomingPart): part is Row {
  return 'columns' in part
}

/** The blocks of parts, as a column can hold them: a row in it, and the line around one, can't stay. */
export function blocksOnly(parts: readonly IncomingPart[], report: Report): Block[] {
  return parts.flatMap((part) => {
    if (!isRow(part)) return part
    const blocks = part.columns.flatMap((one) => one.blocks)
    const first = blocks.map((block) => firstWords(block)).find(Boolean)
    const where = first ? `around “${first}”` : 'within a column'
    if (part.columns.length > 1) note(report, `the columns ${where}, which stood in a column`)
    if (part.style?.border) note(report, `the line ${where}`)
    return blocks
  })
}

/** By what one finds a block again. */
function firstWords(block: Block): string {
  const words =
    'text' in block ? plainInline(block.text, () => '') : 'alt' in block ? block.alt : ''
  return words.slice(0, 40)
}

/** A picture with where it leads; none for those of one pixel, by which others count. */
export function pictureFrom(image: MarkupElement, href: string, report: Report): Block[] {
  const width = Number.parseInt(attribute(image, 'width') || styleOf(image, 'width'), 10)
  const height = Number.parseInt(attribute(image, 'height') || styleOf(image, 'height'), 10)
  if (width <= 2 || height <= 2) {
    note(report, 'a picture of one pixel, left out')
    return []
  }
  const src = pictureSource(attribute(image, 'src').trim())
  if (!src) note(report, 'a picture that is not on the web')
  const share = width >= 20 && width < 540 ? Math.max(5, Math.round((width / 544) * 100)) : 100
  const alt = attribute(image, 'alt')
  return [blockOf('picture', { src, alt, href: safeLink(href), width: share })]
}

/** Rich text of nothing but these nodes. */
export function docOf(content: RichText['content']): RichText {
  return { type: 'doc', content }
}
