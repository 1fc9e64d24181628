import { nameOrAddress } from './names'
import { csvRow } from './csv-row'
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
  orders: number
  /** In minor units. */
  spent: number
  openedAt: number | null
  tier: string
}

/** What can be taken out of each person, beside the address, which always is. */
export interface ExportColumn {
  key: string
  name: string
  of: (person: ExportedPerson) => FieldValue | null
}

/** Every column there is: the fields (`field:town`), then what Satchel knows. Money in units of the currency. */
export function exportColumns(fields: readonly Field[], currency: string): ExportColumn[] {
  const money = new Intl.NumberFormat('en', { style: 'currency', currency }).resolvedOptions()
  const unit = 10 ** (money.maximumFractionDigits ?? 2)
  return [
    ...fields.map(({ key, name }): ExportColumn => ({
      key: `field:${key}`,
      name,
      of: ({ values }) => values[key] ?? null,
    })),
    { key: 'tags', name: 'Tags', of: ({ tags }) => [...tags] },
    { key: 'lists', name: 'Lists', of: ({ lists }) => [...lists] },
    { key: 'joined', name: 'Joined', of: ({ joinedAt }) => new Date(joinedAt).toISOString() },
    { key: 'orders', name: 'Orders', of: ({ orders }) => orders },
    { key: 'spent', name: 'Bought for', of: ({ spent }) => spent / unit },
    {
      key: 'opened',
      name: 'Last opened',
      of: ({ openedAt }) => (openedAt === null ? null : new Date(openedAt).toISOString()),
    },
    { key: 'engagement', name: 'Engagement', of: ({ tier }) => tier },
  ]
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

/** A writer for a format, with these columns in this order. */
export function exportWriter(format: ExportFormat, columns: readonly ExportColumn[]): ExportWriter {
  switch (format) {
    case 'csv':
      return {
        mime: 'text/csv; charset=utf-8',
        extension: 'csv',
        // The mark by which spreadsheets know UTF-8.
        head: `\uFEFF${csvRow(['Address', ...columns.map(({ name }) => name)])}`,
        person: (person) =>
          csvRow([person.address, ...columns.map(({ of }) => showFieldValue(of(person)))]),
        tail: '',
      }
    case 'json':
      return {
        mime: 'application/json; charset=utf-8',
        extension: 'json',
        head: '[',
        person: (person, first) =>
          `${first ? '\n' : ',\n'}${JSON.stringify(plain(person, columns))}`,
        tail: '\n]\n',
      }
    case 'vcard':
      return {
        mime: 'text/vcard; charset=utf-8',
        extension: 'vcf',
        head: '',
        person: (person) => vcard(person, columns),
        tail: '',
      }
  }
}

/** A person as an object: fields by their keys, and beside them what else was chosen. */
function plain(person: ExportedPerson, columns: readonly ExportColumn[]) {
  const fields: Record<string, FieldValue> = {}
  const rest: Record<string, FieldValue> = {}
  for (const { key, of } of columns) {
    const value = of(person)
    if (value === null) continue
    if (key.startsWith('field:')) fields[key.slice('field:'.length)] = value
    else rest[key] = value
  }
  return { address: person.address, fields, ...rest }
}

/** A vCard 4.0 (RFC 6350) with name, address, tags as categories and the other columns in a note. */
function vcard(person: ExportedPerson, columns: readonly ExportColumn[]): string {
  const chosen = new Map(columns.map((column) => [column.key, showFieldValue(column.of(person))]))
  const first = chosen.get('field:first_name') ?? ''
  const last = chosen.get('field:last_name') ?? ''
  const name = nameOrAddress({ first_name: first, last_name: last, address: person.address })
  const apart = ['field:first_name', 'field:last_name', 'tags']
  const notes = columns.flatMap(({ key, name: label }) => {
    const shown = chosen.get(key)
    return shown && !apart.includes(key) ? [`${label}: ${shown}`] : []
  })
  return [
    'BEGIN:VCARD',
    'VERSION:4.0',
    `FN:${vcardText(name)}`,
    `N:${vcardText(last)};${vcardText(first)};;;`,
    `EMAIL:${vcardText(person.address)}`,
    ...(chosen.get('tags') ? [`CATEGORIES:${person.tags.map(vcardText).join(',')}`] : []),
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
