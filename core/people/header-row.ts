import { addressInCell } from './address-cell'
import { namedColumn } from './headers'
import { usualWidth } from './row-reader'

/** Rows in which the header is looked for. */
export const HEADER_WITHIN = 30

/** Where the table of a file begins. Rows count from 1, blank ones and cells with line breaks too. */
export interface HeaderFound {
  /** The row of the header; 0: there is none, and the first row under `firstRow` is a person already. */
  row: number
  /** The first row that is about a person. */
  firstRow: number
}

/**
 * Finds the header: the first row that fills at least half of the table's width and holds no address. Rows before it (`sep=`,
 * titles, blanks) are no part of the table. Where the first such row holds an address, there is no header.
 */
export function findHeader(rows: readonly (readonly string[])[]): HeaderFound {
  const width = usualWidth(rows.filter(isFilled).slice(0, 200))
  for (let i = 0; i < Math.min(rows.length, HEADER_WITHIN); i++) {
    const row = rows[i]!
    if (!isFilled(row) || isSeparatorLine(row)) continue
    if (hasAddress(row)) return { row: 0, firstRow: i + 1 }
    if (width > 1 ? filled(row) * 2 >= width && filled(row) > 1 : beginsColumn(rows, i))
      return { row: i + 1, firstRow: i + 2 }
  }
  const first = rows.findIndex(isFilled)
  return { row: first + 1, firstRow: first + 2 }
}

/** With one column a title looks like a header: the header is called like one, or stands right above an address. */
function beginsColumn(rows: readonly (readonly string[])[], at: number): boolean {
  if (namedColumn(rows[at]![0] ?? '').is === 'address') return true
  const next = rows.slice(at + 1).find(isFilled)
  return next !== undefined && hasAddress(next)
}

const filled = (row: readonly string[]) => row.filter((cell) => cell.trim() !== '').length
export const isFilled = (row: readonly string[]) => row.some((cell) => cell.trim() !== '')
const isSeparatorLine = (row: readonly string[]) => /^\s*"?sep=/i.test(row[0] ?? '')
const hasAddress = (row: readonly string[]) => row.some((cell) => addressInCell(cell).ok)
