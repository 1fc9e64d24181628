import { rowOf, type Block, type LetterDocument, type Row } from './document'

/** The document with a block in a row of its own, before the row that is at `index` now. */
export function insertRow(document: LetterDocument, index: number, block: Block): LetterDocument {
  const rows = [...document.rows]
  rows.splice(clamp(index, rows.length), 0, rowOf(block))
  return { ...document, rows }
}

/** The document without a block; rows and columns that held nothing else go with it. The footer stays. */
export function removeBlock(document: LetterDocument, id: string): LetterDocument {
  const rows = document.rows
    .map((row) => ({
      ...row,
      columns: row.columns
        .map((column) => ({
          ...column,
          blocks: column.blocks.filter((block) => block.id !== id || block.kind === 'footer'),
        }))
        .filter((column) => column.blocks.length > 0),
    }))
    .filter((row) => row.columns.length > 0)
    .map(sharesSumToOne)
  return { ...document, rows }
}

/** The document with the row at `from` taken out and put in so that it is at `to`. */
export function moveRow(document: LetterDocument, from: number, to: number): LetterDocument {
  const rows = [...document.rows]
  const [row] = rows.splice(from, 1)
  if (!row) return document
  rows.splice(clamp(to, rows.length), 0, row)
  return { ...document, rows }
}

/** The document with some properties of one block changed. Its id and kind stay. */
export function updateBlock<B extends Block>(
  document: LetterDocument,
  id: string,
  change: Partial<Omit<B, 'id' | 'kind'>>,
): LetterDocument {
  return {
    ...document,
    rows: document.rows.map((row) =>
      row.columns.some((column) => column.blocks.some((block) => block.id === id))
        ? {
            ...row,
            columns: row.columns.map((column) => ({
              ...column,
              blocks: column.blocks.map((block) =>
                block.id === id ? { ...block, ...change } : block,
              ),
            })),
          }
        : row,
    ),
  }
}

/** The document with a copy of a row under it. `newId` gives an id that was never given before. */
export function duplicateRow(
  document: LetterDocument,
  index: number,
  newId: () => string,
): LetterDocument {
  const row = document.rows[index]
  if (!row || row.columns.some((column) => column.blocks.some((block) => block.kind === 'footer')))
    return document
  const copy: Row = {
    id: newId(),
    columns: row.columns.map((column) => ({
      ...column,
      blocks: column.blocks.map((block) => ({ ...block, id: newId() })),
    })),
  }
  const rows = [...document.rows]
  rows.splice(index + 1, 0, copy)
  return { ...document, rows }
}

function sharesSumToOne(row: Row): Row {
  const sum = row.columns.reduce((total, column) => total + column.share, 0)
  return Math.abs(sum - 1) < 1e-9
    ? row
    : { ...row, columns: row.columns.map((column) => ({ ...column, share: column.share / sum })) }
}

function clamp(index: number, length: number): number {
  return Math.max(0, Math.min(index, length))
}
