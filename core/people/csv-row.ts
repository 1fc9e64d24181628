/** How the cells of a CSV file stand apart, and what is around those that need it. */
export interface CsvLook {
  separator: string
  quote: '"' | "'"
}

/** As RFC 4180 has it. */
export const plainCsv: CsvLook = { separator: ',', quote: '"' }

/** One row of CSV (RFC 4180), with cells that a spreadsheet would run as a formula made harmless. */
export function csvRow(cells: readonly string[], look: CsvLook = plainCsv): string {
  const special = specialIn(look)
  let row = ''
  for (let i = 0; i < cells.length; i++) {
    const cell = cells[i]!
    if (i) row += look.separator
    // Nearly every cell is plain; that is seen at one look.
    row += special.test(cell) ? quoted(harmless(cell), look) : cell
  }
  return `${row}\r\n`
}

/** Signs by which a spreadsheet knows a formula, in their full width, too, which some take for the same; and the minus sign. */
const FORMULA = '=+\\-@\\t\\r\\uff1d\\uff0b\\uff0d\\uff20\\u2212'
const beginsFormula = new RegExp(`^[${FORMULA}]`)

/** A cell that begins like a formula gets an apostrophe before it; a plain number does not need one. */
export function harmless(cell: string): string {
  return beginsFormula.test(cell) && !/^[+-]?\d+([.,]\d+)?$/.test(cell) ? `'${cell}` : cell
}

function quoted(cell: string, { separator, quote }: CsvLook): string {
  const needs = [quote, separator, '\n', '\r'].some((sign) => cell.includes(sign))
  return needs ? `${quote}${cell.replaceAll(quote, quote + quote)}${quote}` : cell
}

const specials = new Map<string, RegExp>()

/** What may need quotes or be a formula. */
function specialIn({ separator, quote }: CsvLook): RegExp {
  const key = separator + quote
  let found = specials.get(key)
  if (!found) specials.set(key, (found = new RegExp(`^[${FORMULA}]|[${separator}${quote}\\r\\n]`)))
  return found
}
