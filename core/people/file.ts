import Papa from 'papaparse'
import { decodeFile, encodingOf, type Encoding } from './encoding'
import { understandColumns, type ColumnPlan, type KnownPeople } from './columns'

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
  header: string[]
  plans: ColumnPlan[]
  /** Rows read to understand the file: at most those in the first {@link previewBytes}. */
  rows: string[][]
  /** Whether `rows` is the whole file. */
  whole: boolean
}

/**
 * Understands a file of people from its first bytes: encoding, separator, header, and what each
 * column holds. `size` is that of the whole file; with `encoding` it is read in that one.
 */
export function understandFile(
  head: Uint8Array,
  size: number,
  known: KnownPeople,
  options: { encoding?: Encoding } = {},
): FileUnderstanding | FileProblem {
  if (head.length === 0 || size === 0)
    return problem(
      'empty',
      'This file is empty. Choose one with a header line and a row for each person.',
    )
  const encoding = options.encoding ?? encodingOf(head)
  if (!looksLikeText(head, encoding))
    return problem(
      'not-text',
      'This file is not text. Save it as CSV in your spreadsheet program and choose that file.',
    )
  const whole = head.length >= size
  const text = decodeFile(head, encoding)
  const parsed = Papa.parse<string[]>(text, {
    delimitersToGuess: [',', ';', '\t', '|'],
    skipEmptyLines: 'greedy',
  })
  const rows = parsed.data
  if (!whole) rows.pop() // the last row may be cut
  const header = (rows.shift() ?? []).map((name) => name.trim())
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
  const plans = understandColumns(header, rows, known)
  if (!plans.some((plan) => plan.target.to === 'address'))
    return problem(
      'no-address',
      `None of the ${header.length} columns holds e-mail addresses. Add a column with them and choose the file again.`,
    )
  return { encoding, delimiter: parsed.meta.delimiter, header, plans, rows, whole }
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
