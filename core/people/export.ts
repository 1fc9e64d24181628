import type { Field, FieldValue } from './fields'
import { showFieldValue } from './fields'

/** A person as they are taken out. */
export interface ExportedPerson {
  address: string
  values: Readonly<Record<string, FieldValue>>
  tags: readonly string[]
  /** Names of the lists they are subscribed to. */
  lists: readonly string[]
  joinedAt: number
}

export const exportFormats = ['csv', 'json', 'vcard'] as const
export type ExportFormat = (typeof exportFormats)[number]

/** Writes people one after the other: what stands before them, each of them, what stands behind. */
export interface ExportWriter {
  mime: string
  extension: string
  head: string
  person(person: ExportedPerson, first: boolean): string
  tail: string
}

/** A writer for a format, with these fields in this order. */
export function exportWriter(format: ExportFormat, fields: readonly Field[]): ExportWriter {
  switch (format) {
    case 'csv':
      return {
        mime: 'text/csv; charset=utf-8',
        extension: 'csv',
        // The mark by which spreadsheets know UTF-8.
        head: `\uFEFF${csvRow(['Address', ...fields.map(({ name }) => name), 'Tags', 'Lists', 'Joined'])}`,
        person: (person) =>
          csvRow([
            person.address,
            ...fields.map(({ key }) => showFieldValue(person.values[key])),
            person.tags.join(', '),
            person.lists.join(', '),
            new Date(person.joinedAt).toISOString(),
          ]),
        tail: '',
      }
    case 'json':
      return {
        mime: 'application/json; charset=utf-8',
        extension: 'json',
        head: '[',
        person: (person, first) =>
          `${first ? '\n' : ',\n'}${JSON.stringify({
            address: person.address,
            fields: Object.fromEntries(
              fields.flatMap(({ key }) =>
                person.values[key] === undefined ? [] : [[key, person.values[key]]],
              ),
            ),
            tags: person.tags,
            lists: person.lists,
            joined: new Date(person.joinedAt).toISOString(),
          })}`,
        tail: '\n]\n',
      }
    case 'vcard':
      return {
        mime: 'text/vcard; charset=utf-8',
        extension: 'vcf',
        head: '',
        person: (person) => vcard(person, fields),
        tail: '',
      }
  }
}

/** One row of CSV (RFC 4180), with cells that a spreadsheet would run as a formula made harmless. */
export function csvRow(cells: readonly string[]): string {
  return `${cells.map((cell) => quoted(harmless(cell))).join(',')}\r\n`
}

/** A cell that begins like a formula gets an apostrophe before it; a plain number does not need one. */
export function harmless(cell: string): string {
  return /^[=+\-@\t\r]/.test(cell) && !/^[+-]?\d+([.,]\d+)?$/.test(cell) ? `'${cell}` : cell
}

function quoted(cell: string): string {
  return /[",\r\n]/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell
}

/** A vCard 4.0 (RFC 6350) with name, address, tags as categories and the other fields in a note. */
function vcard(person: ExportedPerson, fields: readonly Field[]): string {
  const first = showFieldValue(person.values.first_name)
  const last = showFieldValue(person.values.last_name)
  const name = [first, last].filter(Boolean).join(' ') || person.address
  const notes = fields
    .filter(({ key }) => key !== 'first_name' && key !== 'last_name')
    .flatMap(({ key, name: label }) => {
      const shown = showFieldValue(person.values[key])
      return shown ? [`${label}: ${shown}`] : []
    })
  return [
    'BEGIN:VCARD',
    'VERSION:4.0',
    `FN:${vcardText(name)}`,
    `N:${vcardText(last)};${vcardText(first)};;;`,
    `EMAIL:${vcardText(person.address)}`,
    ...(person.tags.length ? [`CATEGORIES:${person.tags.map(vcardText).join(',')}`] : []),
    ...(notes.length ? [`NOTE:${vcardText(notes.join('\n'))}`] : []),
    'END:VCARD',
    '',
  ]
    .map(folded)
    .join('\r\n')
}

/** Text in a vCard value (RFC 6350, 3.4). */
function vcardText(text: string): string {
  return text.replace(/[\\,;]/g, '\\$&').replace(/\r\n|\r|\n/g, '\\n')
}

/** Lines of at most 75 octets; the rest goes on behind a space (RFC 6350, 3.2). */
function folded(line: string): string {
  const encoder = new TextEncoder()
  const parts: string[] = []
  let part = ''
  let size = 0
  for (const letter of line) {
    const bytes = encoder.encode(letter).length
    if (size + bytes > 74) {
      parts.push(part)
      part = ''
      size = 0
    }
    part += letter
    size += bytes
  }
  return [...parts, part].join('\r\n ')
}
