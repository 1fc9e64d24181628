import readWorkbook from 'read-excel-file/universal'

/** Whether a file begins as a ZIP archive does, which a workbook (XLSX) is. */
export function isWorkbook(head: Uint8Array): boolean {
  return head[0] === 0x50 && head[1] === 0x4b && head[2] === 3 && head[3] === 4
}

/**
 * Reads the first sheet of a workbook (XLSX, ISO/IEC 29500) that has more than a header into rows of
 * text: days as "YYYY-MM-DD", yes and no as words. Rows without a word are left out.
 * Throws where the file is no workbook.
 */
export async function rowsOfWorkbook(bytes: ArrayBuffer): Promise<string[][]> {
  const sheets = await readWorkbook(bytes)
  const read = sheets.map(({ data }) =>
    data.map((row) => row.map(cellText)).filter((row) => row.some((cell) => cell !== '')),
  )
  return read.find((rows) => rows.length > 1) ?? read[0] ?? []
}

function cellText(cell: unknown): string {
  if (cell === null || cell === undefined) return ''
  if (typeof cell === 'boolean') return cell ? 'yes' : 'no'
  if (cell instanceof Date) {
    const iso = cell.toISOString()
    return iso.endsWith('T00:00:00.000Z') ? iso.slice(0, 10) : iso.slice(0, 19).replace('T', ' ')
  }
  return String(cell).trim()
}
