import type { PickSettings } from '../picks'
import { richText, type RichText } from './rich-text'
import type { ShownTo } from './shown-to'
import type { Style } from './style'

/** A letter: what is sent as one message. */
export interface Letter {
  subject: string
  previewText: string
  document: LetterDocument
}

/** Rows from top to bottom; columns side by side, with shares of the width that sum to 1; blocks in columns. */
export interface LetterDocument {
  version: 1
  style?: Style
  rows: Row[]
}

/** What rows and blocks have in common. */
interface Part {
  id: string
  /** Left out: everybody. */
  shownTo?: ShownTo
  /** Left out on narrow or on wide screens. */
  hidden?: 'narrow' | 'wide'
  style?: Style
}

export interface Row extends Part {
  columns: Column[]
  /** What becomes of the columns on narrow: one under the other (left out), the last first, or as they are. */
  narrow?: 'reverse' | 'keep'
  /** The stamp that this row is linked to; see `stamps.ts`. */
  stamp?: number
}

export interface Column {
  share: number
  blocks: Block[]
}

export const MOST_COLUMNS = 4

export type Align = 'left' | 'center' | 'right'
/** Large, middle, and as large as running text. */
export type HeadingLevel = 1 | 2 | 3

export interface Heading extends Part {
  kind: 'heading'
  level: HeadingLevel
  align: Align
  text: RichText
}
export interface TextBlock extends Part {
  kind: 'text'
  text: RichText
}
export interface Picture extends Part {
  kind: 'picture'
  src: string
  alt: string
  href: string
  /** Of the column, per cent; on narrow screens another share of it, where one is said. */
  width: number
  narrowWidth?: number
}
/** A picture that leads to a film, with a bar under it that says so. */
export interface Film extends Part {
  kind: 'film'
  src: string
  alt: string
  href: string
}
export interface Button extends Part {
  kind: 'button'
  label: string
  href: string
  align: Align
  /** A quieter one: its words in a line. */
  outline?: true
  /** As wide as its column. */
  full?: true
}
export interface Divider extends Part {
  kind: 'divider'
}
export interface Space extends Part {
  kind: 'space'
  height: number
}
export interface Quote extends Part {
  kind: 'quote'
  text: RichText
  by: string
}
/** Cells by row; the first row may be a head. Every row has as many cells. */
export interface Table extends Part {
  kind: 'table'
  head: boolean
  cells: string[][]
}
/** Where else one can be found: names with links. */
export interface Social extends Part {
  kind: 'social'
  align: Align
  links: { name: string; href: string }[]
}
export interface ProductBlock extends Part {
  kind: 'product'
  src: string
  name: string
  about: string
  price: string
  /** What it cost before; left out: nothing is said. */
  was?: string
  label: string
  href: string
}
/** Products picked for each reader by what they looked at, bought and the like; see `core/picks`. */
export interface Picks extends Part, PickSettings {
  kind: 'picks'
  label: string
}
export const MOST_PICKS = 4
/** What a site tells of one of its pages; `day` is as days are kept, empty where none is told. */
export interface FeedEntry {
  title: string
  href: string
  about: string
  day: string
}
export const MOST_FEED_ENTRIES = 12
/** The newest pages of a site, as its feed told them when it was read last; they stay so until it is read again. */
export interface Feed extends Part {
  kind: 'feed'
  url: string
  many: number
  about: boolean
  entries: FeedEntry[]
}
/** The headings of the letter, each leading to its place. */
export interface Contents extends Part {
  kind: 'contents'
  title: string
}
export interface Code extends Part {
  kind: 'code'
  code: string
}
/** HTML of the author's own; it is cleaned before anybody sees it. */
export interface RawHtml extends Part {
  kind: 'html'
  html: string
}
export interface Footer extends Part {
  kind: 'footer'
  text: RichText
}

export type Block =
  | Heading
  | TextBlock
  | Picture
  | Film
  | Button
  | Divider
  | Space
  | Quote
  | Table
  | Social
  | ProductBlock
  | Picks
  | Feed
  | Contents
  | Code
  | RawHtml
  | Footer
export type BlockKind = Block['kind']

/** Every kind with the words for it, as one finds them when inserting. The footer is there already, and only once. */
export const blockKinds: { kind: BlockKind; name: string; about: string }[] = [
  { kind: 'text', name: 'Text', about: 'paragraphs, lists, links' },
  { kind: 'heading', name: 'Heading', about: 'what comes next' },
  { kind: 'picture', name: 'Picture', about: 'from a file' },
  { kind: 'button', name: 'Button', about: 'the one thing to do' },
  { kind: 'product', name: 'Product', about: 'picture, name, price' },
  { kind: 'picks', name: 'Recommended products', about: 'others for each reader' },
  { kind: 'feed', name: 'From a feed', about: 'what is new on your site' },
  { kind: 'quote', name: 'Quote', about: 'what somebody said' },
  { kind: 'film', name: 'Film', about: 'a picture that plays' },
  { kind: 'table', name: 'Table', about: 'rows and columns' },
  { kind: 'contents', name: 'Contents', about: 'the letter’s headings' },
  { kind: 'social', name: 'Social links', about: 'where else you are' },
  { kind: 'divider', name: 'Divider', about: 'a line across' },
  { kind: 'space', name: 'Space', about: 'room to breathe' },
  { kind: 'code', name: 'Code', about: 'as it is typed' },
  { kind: 'html', name: 'HTML', about: 'your own, cleaned' },
  { kind: 'footer', name: 'Footer', about: 'address and the way out' },
]

/** What a kind of block is called. */
export const blockNames = Object.fromEntries(
  blockKinds.map(({ kind, name }) => [kind, name]),
) as Record<BlockKind, string>

/** Every block, in reading order. */
export function blocksOf(document: LetterDocument): Block[] {
  return document.rows.flatMap((row) => row.columns.flatMap((column) => column.blocks))
}

export function findBlock(document: LetterDocument, id: string): Block | undefined {
  return blocksOf(document).find((block) => block.id === id)
}

/** The row a block stands in. */
export function rowOfBlock(document: LetterDocument, id: string): Row | undefined {
  return document.rows.find((row) =>
    row.columns.some((column) => column.blocks.some((block) => block.id === id)),
  )
}

/** The entries of a feed's block that the letter shows. */
export function shownEntries({ entries, many }: Feed): FeedEntry[] {
  return entries.slice(0, many)
}

/** A new block of a kind, empty, under the given id. */
export function newBlock(kind: BlockKind, id: string): Block {
  switch (kind) {
    case 'heading':
      return { id, kind, level: 1, align: 'left', text: richText('') }
    case 'text':
      return { id, kind, text: richText('') }
    case 'picture':
      return { id, kind, src: '', alt: '', href: '', width: 100 }
    case 'film':
      return { id, kind, src: '', alt: '', href: '' }
    case 'button':
      return { id, kind, label: 'Read more', href: '', align: 'left' }
    case 'divider':
      return { id, kind }
    case 'space':
      return { id, kind, height: 24 }
    case 'quote':
      return { id, kind, text: richText(''), by: '' }
    case 'table':
      return {
        id,
        kind,
        head: true,
        cells: [
          ['', ''],
          ['', ''],
        ],
      }
    case 'social':
      return { id, kind, align: 'left', links: [{ name: '', href: '' }] }
    case 'product':
      return { id, kind, src: '', name: '', about: '', price: '', label: 'See it', href: '' }
    case 'picks':
      return {
        ...{ id, kind, by: 'together', category: '', upTo: null, inStock: true, many: 3 },
        label: 'See it',
      }
    case 'feed':
      return { id, kind, url: '', many: 3, about: true, entries: [] }
    case 'contents':
      return { id, kind, title: 'In this letter' }
    case 'code':
      return { id, kind, code: '' }
    case 'html':
      return { id, kind, html: '' }
    case 'footer':
      return { id, kind, text: richText('You get this because you asked for it.') }
  }
}

/** A row that holds one block over its whole width. */
export function rowOf(block: Block): Row {
  return { id: `r-${block.id}`, columns: [{ share: 1, blocks: [block] }] }
}

/** A letter with nothing in it but its footer. */
export function emptyLetter(): Letter {
  return {
    subject: '',
    previewText: '',
    document: { version: 1, rows: [rowOf(newBlock('footer', 'footer'))] },
  }
}
