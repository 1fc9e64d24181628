import { decodeFile, encodingOf, type Encoding } from './encoding'
import { understandColumns, type ColumnPlan, type KnownPeople } from './columns'
import { findHeader, HEADER_WITHIN, isFilled, type HeaderFound } from './header-row'
import { delimiterOf, rowReader } from './row-reader'

/** How much of a file is read to understand it. */
export const previewBytes = 512 * 1024
/** More columns than this are taken for a mistake. */
export const maxColumns = 200

/** Why a file can't be imported, in words for the one who chose it. */
export interface FileProblem {
  problem: 'empty' | 'not-text' | 'header-only' | 'no-address' | 'too-many-columns'
  message: string
}

export interface FileUnderstanding {
  encoding: Encoding
  delimiter: string
  /** Where the header stands, and whether there is one. */
  table: HeaderFound
  /** The rows before the header that hold something, which are left out. */
  before: { row: number; cells: string[] }[]
  /** The names of the columns; where there is no header, none of them says anything. */
  header: string[]
  plans: ColumnPlan[]
  /** Rows about people that were read to understand the file: at most those in the first {@link previewBytes}. */
  rows: string[][]
  /** The same with everything before them, as the file has them, blank ones too; to choose the header from. */
  firstRows: string[][]
  /** Whether `rows` is the whole file. */
  whole: boolean
}

/** What somebody who knows the file has said of it. */
export interface FileHints {
  encoding?: Encoding | undefined
  delimiter?: string | undefined
  /** The row of the header, from 1; 0: there is none. */
  headerRow?: number | undefined
}

/**
 * Understands a file of people from its first bytes: encoding, separator, header, and what each
 * column holds. `size` is that of the whole file; with `hints` it is read as they say.
 */
export function understandFile(
  head: Uint8Array,
  size: number,
  known: KnownPeople,
  hints: FileHints = {},
): FileUnderstanding | FileProblem {
  if (head.length === 0 || size === 0)
    return problem(
      'empty',
      'This file is empty. Choose one with a header line and a row for each person.',
    )
  const encoding = hints.encoding ?? encodingOf(head)
  if (!looksLikeText(head, encoding))
    return problem(
      'not-text',
      'This file is not text. Save it as CSV in your spreadsheet program and choose that file.',
    )
  const whole = head.length >= size && size <= previewBytes
  const text = decodeFile(head.subarray(0, previewBytes), encoding)
  const delimiter = hints.delimiter ?? delimiterOf(text)
  const reader = rowReader(delimiter)
  const all = reader.push(text)
  // The last row of a piece may be cut; of the whole file it is a row like the others.
  if (whole) all.push(...reader.end(''))
  const table =
    hints.headerRow === undefined
      ? findHeader(all)
      : { row: hints.headerRow, firstRow: hints.headerRow || firstFilled(all) }
  if (table.row > 0) table.firstRow = table.row + 1
  const rows = all.slice(table.firstRow - 1).filter(isFilled)
  const header = headerOf(table.row > 0 ? (all[table.row - 1] ?? []) : [], rows, table.row > 0)
  if (header.length > maxColumns)
    return problem(
      'too-many-columns',
      `This file has ${header.length} columns; up to ${maxColumns} can be imported. Remove those you do not need.`,
    )
  if (rows.length === 0)
    return problem(
      'header-only',
      'This file has a header line and nothing under it, so there is nobody to import.',
    )
  const plans = understandColumns(header, rows, known, { named: table.row > 0 })
  if (!plans.some((plan) => plan.target.to === 'address'))
    return problem(
      'no-address',
      `None of the ${header.length} columns holds e-mail addresses. Add a column with them and choose the file again.`,
    )
  const before = all
    .slice(0, (table.row || table.firstRow) - 1)
    .map((cells, i) => ({ row: i + 1, cells }))
    .filter(({ cells }) => isFilled(cells))
  const firstRows = all.slice(0, HEADER_WITHIN)
  return { encoding, delimiter, table, before, header, plans, rows, firstRows, whole }
}

const firstFilled = (rows: readonly string[][]) => rows.findIndex(isFilled) + 1

/** The names of the columns; those at the end without a name and without a value come of separators at the end of lines. */
function headerOf(row: readonly string[], rows: readonly string[][], named: boolean): string[] {
  const widest = rows.reduce((most, cells) => Math.max(most, cells.length), 0)
  const names = named ? row.map((name) => name.trim()) : Array.from({ length: widest }, () => '')
  while (
    names.length > 1 &&
    names.at(-1) === '' &&
    rows.every((cells) => (cells[names.length - 1] ?? '').trim() === '')
  )
    names.pop()
  return names
}

function problem(kind: FileProblem['problem'], message: string): FileProblem {
  return { problem: kind, message }
}

/** Text has no zero bytes (outside UTF-16) and hardly any control characters. */
function looksLikeText(bytes: Uint8Array, encoding: Encoding): boolean {
  if (encoding.startsWith('utf-16')) return true
  const sample = bytes.subarray(0, 4096)
  const strange = sample.filter((b) => b < 9 || (b > 13 && b < 32)).length
  return !sample.includes(0) && strange <= sample.length / 100
}
