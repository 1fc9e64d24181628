import Papa from 'papaparse'

export const delimiters = [',', ';', '\t', '|'] as const

/** A row of a list has far less; one that goes on and on is a quotation mark that was never closed. Characters. */
const LONGEST_ROW = 1_000_000

/** Cuts a text that comes in pieces into rows of cells (RFC 4180); what a piece leaves unfinished waits for the next. */
export interface RowReader {
  push(text: string): string[][]
  end(text: string): string[][]
}

/**
 * Reads rows apart by line feeds, with or without a carriage return before them, or by carriage returns alone, which the
 * first piece tells. Throws where a row is longer than a million characters.
 */
export function rowReader(delimiter: string): RowReader {
  let parser: Papa.Parser | null = null
  let rest = ''
  const parse = (text: string, last: boolean): string[][] => {
    // A return at the end of the first piece may be half of an end of line; what follows it tells.
    if (!parser && !last && text.indexOf('\r') === text.length - 1 && text !== '') {
      rest = text
      return []
    }
    parser ??= new Papa.Parser({ delimiter, newline: lineEndOf(text) })
    const { data, meta } = parser.parse(text, 0, !last) as {
      data: string[][]
      meta: { cursor: number }
    }
    rest = last ? '' : text.slice(meta.cursor)
    if (rest.length > LONGEST_ROW) throw new Error(endlessRow(rest))
    for (const row of data) withoutReturn(row)
    return data
  }
  return {
    push: (text) => parse(rest + text, false),
    end: (text) => parse(rest + text, true),
  }
}

const lineEndOf = (text: string) => (!text.includes('\n') && text.includes('\r') ? '\r' : '\n')

/** The carriage return before a line feed is no part of the last cell. */
function withoutReturn(row: string[]) {
  const last = row.length - 1
  if (row[last]?.endsWith('\r')) row[last] = row[last]!.slice(0, -1)
}

const endlessRow = (row: string) =>
  `A row is longer than a million characters: a quotation mark before it may never be closed. It begins with “${row.slice(0, 60).replace(/\s+/g, ' ')}…”.`

/** A first line that names the sign between cells, as spreadsheet programs write it. */
const named = /^\uFEFF?\s*"?sep=(,|;|\t|\|)"?\s*(\r|\n|$)/i

/**
 * The sign between the cells of a text: what its first line names, else the one that cuts most lines into equally many cells.
 */
export function delimiterOf(text: string): string {
  const says = named.exec(text)?.[1]
  if (says) return says
  const scored = delimiters.map((delimiter) => ({ delimiter, score: evenness(text, delimiter) }))
  return scored.reduce((best, next) => (next.score > best.score ? next : best)).delimiter
}

const LINES_LOOKED_AT = 200

/** How alike the rows are under a delimiter, the more the more cells they have; 0 where it hardly occurs. */
function evenness(text: string, delimiter: string): number {
  const { data } = Papa.parse<string[]>(text.slice(0, 100_000), {
    delimiter,
    preview: LINES_LOOKED_AT,
    skipEmptyLines: true,
  })
  const width = usualWidth(data)
  if (width < 2) return 0
  return (data.filter((row) => row.length === width).length / data.length) * Math.log2(width)
}

/** How many cells most of the rows have; of equally many the wider. */
export function usualWidth(rows: readonly (readonly string[])[]): number {
  const counts = new Map<number, number>()
  for (const { length } of rows) counts.set(length, (counts.get(length) ?? 0) + 1)
  const most = [...counts].reduce(
    (best, next) => (next[1] > best[1] || (next[1] === best[1] && next[0] > best[0]) ? next : best),
    [1, 0],
  )
  return most[0]
}
