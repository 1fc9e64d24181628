import { richText, type RichText } from './rich-text'

/** A letter: what is sent as one message. */
export interface Letter {
  subject: string
  previewText: string
  document: LetterDocument
}

/** Rows from top to bottom; columns side by side, with shares of the width that sum to 1; blocks in columns. */
export interface LetterDocument {
  version: 1
  rows: Row[]
}

export interface Row {
  id: string
  columns: Column[]
}

export interface Column {
  share: number
  blocks: Block[]
}

export type Align = 'left' | 'center' | 'right'

export interface Heading {
  id: string
  kind: 'heading'
  level: 1 | 2
  align: Align
  text: RichText
}
export interface TextBlock {
  id: string
  kind: 'text'
  text: RichText
}
export interface Picture {
  id: string
  kind: 'picture'
  src: string
  alt: string
  href: string
  width: number
}
export interface Button {
  id: string
  kind: 'button'
  label: string
  href: string
  align: Align
}
export interface Divider {
  id: string
  kind: 'divider'
}
export interface Space {
  id: string
  kind: 'space'
  height: number
}
export interface Footer {
  id: string
  kind: 'footer'
  text: RichText
}

export type Block = Heading | TextBlock | Picture | Button | Divider | Space | Footer
export type BlockKind = Block['kind']

/** The kinds one may insert, with the words for them. The footer is there already, and only once. */
export const blockKinds: { kind: Exclude<BlockKind, 'footer'>; name: string; about: string }[] = [
  { kind: 'text', name: 'Text', about: 'Paragraphs, lists and links' },
  { kind: 'heading', name: 'Heading', about: 'What the next part is about' },
  { kind: 'picture', name: 'Picture', about: 'From a file' },
  { kind: 'button', name: 'Button', about: 'The one thing to do' },
  { kind: 'divider', name: 'Divider', about: 'A line across' },
  { kind: 'space', name: 'Space', about: 'Room to breathe' },
]

/** Every block, in reading order. */
export function blocksOf(document: LetterDocument): Block[] {
  return document.rows.flatMap((row) => row.columns.flatMap((column) => column.blocks))
}

export function findBlock(document: LetterDocument, id: string): Block | undefined {
  return blocksOf(document).find((block) => block.id === id)
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
    case 'button':
      return { id, kind, label: 'Read more', href: '', align: 'left' }
    case 'divider':
      return { id, kind }
    case 'space':
      return { id, kind, height: 24 }
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
