import Papa from 'papaparse'
import { checkAddress } from './address'

/** The columns that people in running text come to. */
const HEADER = ['Address', 'Name']

/**
 * Reads what was pasted into rows under a header. A table with a header line stays one; running text
 * (an address book's "Name <address>, Name <address>", a line each, or addresses alone) becomes an
 * address and a name a row. What is no address stays in its row, to be refused with a reason.
 */
export function rowsOfPasted(text: string): string[][] {
  const table = tableIn(text)
  if (table) return table
  const rows = text
    .split(/\r\n|\r|\n/)
    .flatMap(entriesOf)
    .map(personIn)
  return rows.length ? [HEADER, ...rows] : []
}

/** The text as a table: its first line names the columns, one of them the addresses. */
function tableIn(text: string): string[][] | null {
  const { data } = Papa.parse<string[]>(text.trim(), {
    delimitersToGuess: ['\t', ',', ';', '|'],
    skipEmptyLines: 'greedy',
  })
  const [header, ...rows] = data
  if (!header || header.length < 2 || rows.length === 0) return null
  if (header.some((cell) => cell.trim() === '' || cell.includes('@'))) return null
  const column = header.findIndex((_, i) => rows.every((row) => hasAddress(row[i] ?? '')))
  return column >= 0 && rows.every((row) => row.length <= header.length) ? data : null
}

/** Cuts a line into what stands for one person each: at commas and semicolons behind an address. */
function entriesOf(line: string): string[] {
  const entries: string[] = []
  let entry = ''
  let quoted = false
  let bracket = false
  for (const letter of line) {
    if (letter === '"') quoted = !quoted
    if (letter === '<') bracket = true
    if (letter === '>') bracket = false
    if ((letter === ',' || letter === ';') && !quoted && !bracket && /\S@\S/.test(entry)) {
      entries.push(entry)
      entry = ''
    } else entry += letter
  }
  return [...entries, entry].map((one) => one.trim()).filter((one) => one !== '')
}

/** One person: the address as written, and what stands around it as a name. */
function personIn(entry: string): string[] {
  const inBrackets = /<([^<>]*)>/.exec(entry)
  const address = (
    inBrackets?.[1] ??
    entry.split(/[\s,;]+/).find((word) => word.includes('@')) ??
    entry
  ).trim()
  if (address === entry) return [address, '']
  const name = entry
    .replace(inBrackets?.[0] ?? address, ' ')
    .replace(/["']/g, ' ')
    .replace(/\s+/g, ' ')
    .replace(/^[\s,;]+|[\s,;]+$/g, '')
  return [address, name]
}

function hasAddress(cell: string): boolean {
  return checkAddress(cell).ok
}
