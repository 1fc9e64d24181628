import {
  MOST_COLUMNS,
  rowOf,
  rowOfBlock,
  type Block,
  type Column,
  type LetterDocument,
  type Row,
} from './document'

/** A place for a block: in a row's column, before the block that is at `at` now. */
export interface Place {
  rowId: string
  column: number
  at: number
}

/** The document with a block in a row of its own, before the row that is at `index` now. */
export function insertRow(document: LetterDocument, index: number, block: Block): LetterDocument {
  const rows = [...document.rows]
  rows.splice(clamp(index, rows.length), 0, rowOf(block))
  return footerLast({ ...document, rows })
}

/** The document with a block at a place; as it was where there is no such place. */
export function insertBlock(document: LetterDocument, place: Place, block: Block): LetterDocument {
  const put = withColumn(document, place, (blocks) => {
    const next = [...blocks]
    next.splice(clamp(place.at, next.length), 0, block)
    return next
  })
  return footerLast(put)
}

/** The document with nothing under its footer, neither below its row nor in its column: whoever reads to the end finds the way out. */
export function footerLast(document: LetterDocument): LetterDocument {
  const isLow = (column: Column) => column.blocks.findIndex(({ kind }) => kind === 'footer')
  const fine = document.rows.every(
    (row, i) =>
      !hasFooter(row) ||
      (document.rows.slice(i).every(hasFooter) &&
        row.columns.every((column) => [-1, column.blocks.length - 1].includes(isLow(column)))),
  )
  if (fine) return document
  const rows = document.rows.map((row) =>
    hasFooter(row)
      ? {
          ...row,
          columns: row.columns.map((column) => ({
            ...column,
            blocks: column.blocks.toSorted(
              (a, b) => Number(a.kind === 'footer') - Number(b.kind === 'footer'),
            ),
          })),
        }
      : row,
  )
  return { ...document, rows: rows.toSorted((a, b) => Number(hasFooter(a)) - Number(hasFooter(b))) }
}

/** The document without a block; a row that held nothing else goes with it. The footer stays. */
export function removeBlock(document: LetterDocument, id: string): LetterDocument {
  const rows = document.rows.flatMap((row) => {
    const columns = row.columns.map((column) => ({
      ...column,
      blocks: column.blocks.filter((block) => block.id !== id || block.kind === 'footer'),
    }))
    return columns.some(({ blocks }) => blocks.length) ? [{ ...row, columns }] : []
  })
  return { ...document, rows }
}

/** The document without a row, but for one that holds the footer. */
export function removeRow(document: LetterDocument, id: string): LetterDocument {
  return {
    ...document,
    rows: document.rows.filter((row) => row.id !== id || hasFooter(row)),
  }
}

/** The document with the row at `from` taken out and put in so that it is at `to`. */
export function moveRow(document: LetterDocument, from: number, to: number): LetterDocument {
  const rows = [...document.rows]
  const [row] = rows.splice(from, 1)
  if (!row) return document
  rows.splice(clamp(to, rows.length), 0, row)
  return footerLast({ ...document, rows })
}

/** The document with every row that holds one of some blocks moved by one; where there is no room, none moves (the footer stays the last). */
export function moveRows(
  document: LetterDocument,
  blockIds: readonly string[],
  by: 1 | -1,
): LetterDocument {
  const moves = (row: Row) =>
    row.columns.some(({ blocks }) => blocks.some(({ id }) => blockIds.includes(id)))
  const rows = [...document.rows]
  const lowest = rows.findLastIndex((row) => !hasFooter(row) || moves(row))
  const edge = by < 0 ? rows[0] : rows[lowest]
  if (!edge || moves(edge) || !rows.some(moves)) return document
  const order = by < 0 ? rows.keys() : [...rows.keys()].reverse()
  for (const at of order)
    if (moves(rows[at]!)) {
      const [row] = rows.splice(at, 1)
      rows.splice(at + by, 0, row!)
    }
  return footerLast({ ...document, rows })
}

/**
 * The document with a block taken from where it stands and put at a place, counted as if it were taken out
 * already. A row that is left empty goes.
 */
export function moveBlock(document: LetterDocument, id: string, place: Place): LetterDocument {
  const block = document.rows
    .flatMap((row) => row.columns.flatMap(({ blocks }) => blocks))
    .find((one) => one.id === id)
  const target = document.rows.find((row) => row.id === place.rowId)
  if (!block || !target?.columns[place.column]) return document
  const taken = document.rows.map((row) => ({
    ...row,
    columns: row.columns.map((column) => ({
      ...column,
      blocks: column.blocks.filter((one) => one.id !== id),
    })),
  }))
  const put = insertBlock({ ...document, rows: taken }, place, block)
  return {
    ...put,
    rows: put.rows.filter((row) => row.columns.some(({ blocks }) => blocks.length)),
  }
}

/** Other values for some properties of a block of some kind; undefined takes one away. Id and kind stay. */
export type BlockChange = ChangeOf<Block>
type ChangeOf<B> = B extends Block
  ? { [K in keyof Omit<B, 'id' | 'kind'>]?: B[K] | undefined }
  : never

/** The document with some properties of one block changed. */
export function updateBlock(
  document: LetterDocument,
  id: string,
  change: BlockChange,
): LetterDocument {
  const row = rowOfBlock(document, id)
  if (!row) return document
  const columns = row.columns.map((column) => ({
    ...column,
    blocks: column.blocks.map((block) => {
      if (block.id !== id) return block
      const next = changed(block, change)
      return block.kind === 'footer' ? forEverybody(next) : next
    }),
  }))
  return withRow(document, row.id, { ...row, columns })
}

/** The document with some properties of one row changed; undefined takes one away. */
export function updateRow(
  document: LetterDocument,
  id: string,
  change: { [K in keyof Omit<Row, 'id' | 'columns'>]?: Row[K] | undefined },
): LetterDocument {
  const row = document.rows.find((one) => one.id === id)
  return row ? withRow(document, id, changed(row, change)) : document
}

/**
 * The document with a row of so many columns of equal width. New ones are empty; what stood in those that go
 * is put under what stands in the last that stays.
 */
export function setColumns(document: LetterDocument, id: string, many: number): LetterDocument {
  const row = document.rows.find((one) => one.id === id)
  const n = Math.max(1, Math.min(MOST_COLUMNS, Math.floor(many)))
  if (!row || row.columns.length === n) return document
  const columns = Array.from({ length: n }, (_, i): Column => {
    const last = i === n - 1
    const blocks = last
      ? row.columns.slice(i).flatMap((column) => column.blocks)
      : (row.columns[i]?.blocks ?? [])
    return { share: 1 / n, blocks }
  })
  return withRow(document, id, { ...row, columns })
}

/** The document with a row's columns of these widths, whatever they sum to. */
export function setShares(
  document: LetterDocument,
  id: string,
  shares: readonly number[],
): LetterDocument {
  const row = document.rows.find((one) => one.id === id)
  if (!row || shares.length !== row.columns.length) return document
  return withRow(document, id, { ...row, columns: withShares(row.columns, shares) })
}

/** The document with a copy of a row under it. `newId` gives an id that was never given before. */
export function duplicateRow(
  document: LetterDocument,
  index: number,
  newId: () => string,
): LetterDocument {
  const row = document.rows[index]
  if (!row || hasFooter(row)) return document
  const rows = [...document.rows]
  rows.splice(index + 1, 0, copyOfRow(row, newId))
  return { ...document, rows }
}

/** The document with a copy of a block under it, in the same column. */
export function duplicateBlock(
  document: LetterDocument,
  id: string,
  newId: () => string,
): LetterDocument {
  const row = rowOfBlock(document, id)
  if (!row) return document
  const column = row.columns.findIndex(({ blocks }) => blocks.some((block) => block.id === id))
  const at = row.columns[column]!.blocks.findIndex((block) => block.id === id)
  const block = row.columns[column]!.blocks[at]!
  if (block.kind === 'footer') return document
  return insertBlock(document, { rowId: row.id, column, at: at + 1 }, { ...block, id: newId() })
}

/** A row with the same things in it, under ids of its own. */
export function copyOfRow(row: Row, newId: () => string): Row {
  return {
    ...row,
    id: newId(),
    columns: row.columns.map((column) => ({
      ...column,
      blocks: column.blocks.map((block) => ({ ...block, id: newId() })),
    })),
  }
}

const NARROWEST = 0.05

/** Columns of these shares, made to sum to 1, none narrower than a twentieth. */
export function withShares(columns: readonly Column[], shares: readonly number[]): Column[] {
  const wanted = shares.map((share) => (Number.isFinite(share) ? Math.max(0, share) : 0))
  const narrow = new Set<number>()
  for (;;) {
    const rest = wanted.reduce((sum, share, i) => (narrow.has(i) ? sum : sum + share), 0)
    const room = 1 - NARROWEST * narrow.size
    // What sums to what it should is left to the last bit, so that doing it again changes nothing.
    const scale = Math.abs(rest - room) < 1e-9 ? 1 : rest > 0 ? room / rest : 0
    const tooNarrow = wanted.findIndex(
      (share, i) => !narrow.has(i) && share * scale < NARROWEST - 1e-9,
    )
    if (tooNarrow < 0)
      return columns.map((column, i) => ({
        ...column,
        share: narrow.has(i) ? NARROWEST : wanted[i]! * scale,
      }))
    narrow.add(tooNarrow)
  }
}

export function hasFooter(row: Row): boolean {
  return row.columns.some(({ blocks }) => blocks.some(({ kind }) => kind === 'footer'))
}

/** The way out is in every letter, whoever reads it on whatever, and is no stamp's. */
export function forEverybody<T extends Row | Block>(part: T): T {
  const { shownTo: _shown, hidden: _hidden, ...rest } = part
  if ('stamp' in rest) delete rest.stamp
  return rest as T
}

/** With a change taken over; what is undefined in it is left out of the result. */
function changed<T extends object>(part: T, change: object): T {
  return Object.fromEntries(
    Object.entries({ ...part, ...change }).filter(([, value]) => value !== undefined),
  ) as T
}

function withRow(document: LetterDocument, id: string, row: Row): LetterDocument {
  const next = hasFooter(row) ? forEverybody(row) : row
  return { ...document, rows: document.rows.map((one) => (one.id === id ? next : one)) }
}

function withColumn(
  document: LetterDocument,
  { rowId, column }: Place,
  next: (blocks: readonly Block[]) => Block[],
): LetterDocument {
  const row = document.rows.find((one) => one.id === rowId)
  if (!row?.columns[column]) return document
  const columns = row.columns.map((one, i) =>
    i === column ? { ...one, blocks: next(one.blocks) } : one,
  )
  return withRow(document, rowId, { ...row, columns })
}

function clamp(index: number, length: number): number {
  return Math.max(0, Math.min(index, length))
}
