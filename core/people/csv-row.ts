/** How the cells of a CSV file stand apart, and what is around those that need it. */
export interface CsvLook {
  separator: string
  quote: '"' | "'"
}

/** As RFC 4180 has it. */
export const plainCsv: CsvLook = { separator: ',', quote: '"' }

/** One row of CSV (RFC 4180), with cells that a spreadsheet would run as a formula made harmless. */
export function csvRow(cells: readonly string[], look: CsvLook = plainCsv): string {
  let row = ''
  for (let i = 0; i < cells.length; i++) {
    if (i) row += look.separator
    row += quoted(harmless(cells[i]!), look)
  }
  return `${row}\r\n`
}

/** A cell that begins like a formula gets an apostrophe before it; a plain number does not need one. */
export function harmless(cell: string): string {
  return /^[=+\-@\t\r]/.test(cell) && !/^[+-]?\d+([.,]\d+)?$/.test(cell) ? `'${cell}` : cell
}

function quoted(cell: string, { separator, quote }: CsvLook): string {
  const needs =
    cell.includes(quote) || cell.includes(separator) || cell.includes('\n') || cell.includes('\r')
  return needs ? `${quote}${cell.replaceAll(quote, quote + quote)}${quote}` : cell
}
