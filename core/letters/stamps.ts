import type { Block, LetterDocument, Row } from './document'
import { hasFooter } from './changes'
import { isSame } from './same'

/**
 * What is kept for reuse: a row's columns with their blocks, and how it looks. A letter's row that is linked
 * to a stamp holds a copy, so that whatever reads letters need not know of stamps; who gets the row, and on
 * what, is the letter's own affair.
 */
export type StampContent = Pick<Row, 'columns' | 'narrow' | 'style'>

/** A stamp by its number, as a letter needs it. */
export type StampContents = ReadonlyMap<number, StampContent>

/** What of a row a stamp keeps. */
export function stampContent({ columns, narrow, style }: Row): StampContent {
  return { columns, ...(narrow ? { narrow } : {}), ...(style ? { style } : {}) }
}

/** A new row linked to a stamp. */
export function stampRow(id: string, stamp: number, content: StampContent): Row {
  return stamped({ id, stamp, columns: [] }, content)
}

/** The row with what a stamp holds; a block that stays where it is keeps its id. */
export function stamped(row: Row, content: StampContent): Row {
  const { id, shownTo, hidden, stamp } = row
  const staying = (block: Block, c: number, at: number) => {
    const before = row.columns[c]?.blocks[at]
    return before?.kind === block.kind ? before.id : null
  }
  const all = content.columns.flatMap(({ blocks }, c) =>
    blocks.map((block, at) => staying(block, c, at)),
  )
  // A new block’s id may be one that a block that stays has had from an earlier stamp.
  const used = new Set(all)
  let n = 0
  const columns = content.columns.map((column, c) => ({
    ...column,
    blocks: column.blocks.map((block, at): Block => {
      n++
      return { ...block, id: staying(block, c, at) ?? unused(`${id}-${n}`, used) }
    }),
  }))
  return {
    id,
    ...(shownTo ? { shownTo } : {}),
    ...(hidden ? { hidden } : {}),
    ...(stamp === undefined ? {} : { stamp }),
    ...stampContent({ ...content, id, columns }),
  }
}

function unused(id: string, used: Set<string | null>): string {
  let next = id
  while (used.has(next)) next += 'x'
  used.add(next)
  return next
}

/** Whether a row holds what the stamp does, whatever its parts' ids. */
export function isAsStamped(row: Row, content: StampContent): boolean {
  return isSame(withoutIds(stampContent(row)), withoutIds(content))
}

/** The document with every linked row as its stamp is now; the same document where all are. */
export function withStamps(document: LetterDocument, stamps: StampContents): LetterDocument {
  let touched = false
  const taken = new Set(document.rows.flatMap(idsIn))
  const rows = document.rows.map((row) => {
    const content = row.stamp === undefined ? undefined : stamps.get(row.stamp)
    if (!content || isAsStamped(row, content)) return row
    touched = true
    return withOwnIds(stamped(row, content), new Set(idsIn(row)), taken)
  })
  return touched ? { ...document, rows } : document
}

/** The document with the stamps of its letterhead: one above everything, one above the footer. */
export function withFrameStamps(
  document: LetterDocument,
  { head, foot }: { head: number | null; foot: number | null },
  stamps: StampContents,
): LetterDocument {
  const row = (id: string, stamp: number | null) => {
    const content = stamp === null ? undefined : stamps.get(stamp)
    return content ? [stampRow(id, stamp!, content)] : []
  }
  const { rows } = document
  const footer = rows.findLastIndex(hasFooter)
  const at = footer < 0 ? rows.length : footer
  return {
    ...document,
    rows: [
      ...row('letterhead-head', head),
      ...rows.slice(0, at),
      ...row('letterhead-foot', foot),
      ...rows.slice(at),
    ],
  }
}

/** The numbers of the stamps that a letter is linked to, each once. */
export function stampsIn(document: LetterDocument): number[] {
  return [...new Set(document.rows.flatMap(({ stamp }) => stamp ?? []))]
}

export function isStampId(value: unknown): value is number {
  return typeof value === 'number' && Number.isSafeInteger(value) && value > 0
}

/** What a stamp holds without the ids of its parts, and shares as exact as they need be. */
function withoutIds({ columns, ...row }: StampContent) {
  return {
    ...row,
    columns: columns.map(({ share, blocks }) => ({
      share: Math.round(share * 1e6),
      blocks: blocks.map(({ id: _id, ...block }) => block),
    })),
  }
}

function idsIn(row: Row): string[] {
  return row.columns.flatMap(({ blocks }) => blocks.map(({ id }) => id))
}

/** The row with ids that nothing else in the letter has. */
function withOwnIds(row: Row, own: ReadonlySet<string>, taken: Set<string>): Row {
  const here = new Set<string>()
  const free = (id: string) => {
    let next = id
    while (here.has(next) || (!own.has(next) && taken.has(next))) next += 'x'
    here.add(next)
    taken.add(next)
    return next
  }
  return {
    ...row,
    columns: row.columns.map((column) => ({
      ...column,
      blocks: column.blocks.map((block) => ({ ...block, id: free(block.id) })),
    })),
  }
}

/** A stamp with the mailings whose letters are linked to it, the latest first. */
export interface Stamp {
  id: number
  name: string
  content: StampContent
  version: number
  updatedAt: number
  usedIn: StampUse[]
}

export interface StampUse {
  id: number
  name: string
  /** Follows when the stamp is changed; a letter that went out stays as it was. */
  follows: boolean
}
