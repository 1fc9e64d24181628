import Papa from 'papaparse'
import { decodeFile } from './encoding'
import { rowsOfPasted } from './pasted'
import { isVcards, rowsOfVcards } from './vcards'
import { isWorkbook, rowsOfWorkbook } from './workbook'

/** Beginning of a file that is looked at to tell what it is. */
const HEAD = 4096

/**
 * Whatever people come in, one CSV file goes on: a workbook and vCards are turned into one; a file that
 * is text already is null, to be read as it is. Throws where a workbook can't be read.
 */
export async function fileAsCsv(file: Blob): Promise<string | null> {
  const head = new Uint8Array(await file.slice(0, HEAD).arrayBuffer())
  if (isWorkbook(head)) return csvOf(await rowsOfWorkbook(await file.arrayBuffer()))
  if (!isVcards(decodeFile(head))) return null
  const bytes = new Uint8Array(await file.arrayBuffer())
  return csvOf(rowsOfVcards(decodeFile(bytes)))
}

/** The same for text that was pasted; empty where nobody is in it. */
export function pastedAsCsv(text: string): string {
  return csvOf(isVcards(text) ? rowsOfVcards(text) : rowsOfPasted(text))
}

function csvOf(rows: string[][]): string {
  return rows.length ? `${Papa.unparse(rows, { newline: '\r\n' })}\r\n` : ''
}
