import fc from 'fast-check'
import Papa from 'papaparse'
import { expect, test } from 'vitest'
import { csvRow, harmless } from './csv-row'
import { exportColumns, exportWriter, type ExportedPerson } from './export'
import type { Field } from './fields'

const fields: Field[] = [
  { key: 'first_name', name: 'First name', kind: 'text' },
  { key: 'last_name', name: 'Last name', kind: 'text' },
  { key: 'styles', name: 'Flying style', kind: 'choices' },
]
const person: ExportedPerson = {
  address: 'tove@inkpost.example',
  values: { first_name: 'Tove; "T"', last_name: 'Ø,\nsen', styles: ['stunt', 'power'] },
  tags: ['owner', 'a,b'],
  lists: ['Wind notes'],
  joinedAt: Date.UTC(2026, 10, 23),
  orders: 2,
  spent: 4_150,
  openedAt: null,
  tier: 'warm',
}
const columns = exportColumns(fields, 'GBP')
const chosen = (...keys: string[]) =>
  keys.map((key) => columns.find((column) => column.key === key)!)

test('what is written as CSV is read back cell by cell', () => {
  const text = fc.string({ unit: 'grapheme' }).filter((one) => harmless(one) === one)
  fc.assert(
    fc.property(fc.array(text, { minLength: 2, maxLength: 5 }), (cells) => {
      expect(
        Papa.parse<string[]>(csvRow(cells), { newline: '\r\n', delimiter: ',' }).data[0],
      ).toEqual(cells)
    }),
  )
})

test.each([
  [';', "'"],
  ['\t', '"'],
] as const)('with %j between and %j around as well', (separator, quote) => {
  const text = fc.string({ unit: fc.constantFrom('a', ';', '\t', '"', "'", '\n', '=', ' ') })
  fc.assert(
    fc.property(fc.array(text, { minLength: 2, maxLength: 5 }), (cells) => {
      const row = csvRow(cells, { separator, quote })
      const look = { newline: '\r\n' as const, delimiter: separator, quoteChar: quote }
      expect(Papa.parse<string[]>(row, look).data[0]).toEqual(cells.map(harmless))
    }),
  )
})

test.each([
  ['=HYPERLINK("https://x.example")', `'=HYPERLINK("https://x.example")`],
  ['+cmd|calc', "'+cmd|calc"],
  ['-1+2', "'-1+2"],
  ['@sum', "'@sum"],
  ['\t=1', "'\t=1"],
  ['＝1+1', "'＝1+1"],
  ['＋cmd', "'＋cmd"],
  ['－1+2', "'－1+2"],
  ['＠sum', "'＠sum"],
  ['−1+2', "'−1+2"],
  ['-12.5', '-12.5'],
  ['+44', '+44'],
  ['plain', 'plain'],
])('the cell %j becomes %j', (cell, safe) => expect(harmless(cell)).toBe(safe))

test('CSV has a header of the fields’ names and marks itself as UTF-8', () => {
  const writer = exportWriter('csv', columns)
  expect(writer.head).toBe(
    '\uFEFFAddress,First name,Last name,Flying style,Tags,Lists,Joined,Orders,Bought for,Last opened,Engagement\r\n',
  )
  expect(writer.person(person, true)).toContain('"stunt, power"')
  expect(writer.person(person, true)).toMatch(/,2026-11-23T00:00:00\.000Z,2,41\.5,,warm\r\n$/)
})

test('only the chosen columns come out, in their order; the address always does', () => {
  const some = chosen('spent', 'field:styles')
  expect(exportWriter('csv', some).head).toBe('\uFEFFAddress,Bought for,Flying style\r\n')
  expect(exportWriter('csv', some).person(person, true)).toBe(
    'tove@inkpost.example,41.5,"stunt, power"\r\n',
  )
  expect(JSON.parse(exportWriter('json', some).person(person, true))).toEqual({
    address: 'tove@inkpost.example',
    fields: { styles: ['stunt', 'power'] },
    spent: 41.5,
  })
  const card = exportWriter('vcard', some).person(person, true)
  expect(card).toContain('FN:tove@inkpost.example')
  expect(card).not.toContain('CATEGORIES')
  expect(exportWriter('csv', []).person(person, true)).toBe('tove@inkpost.example\r\n')
})

test('money has as many places as its currency', () => {
  const [yen] = exportColumns([], 'JPY').filter(({ key }) => key === 'spent')
  expect(yen!.of(person)).toBe(4_150)
})

test('JSON is an array of people, also an empty one', () => {
  const writer = exportWriter('json', columns)
  expect(JSON.parse(writer.head + writer.tail)).toEqual([])
  const two = JSON.parse(
    writer.head + writer.person(person, true) + writer.person(person, false) + writer.tail,
  )
  expect(two).toHaveLength(2)
  expect(two[0]).toMatchObject({
    address: 'tove@inkpost.example',
    fields: { styles: ['stunt', 'power'] },
  })
})

test('a vCard escapes what would end a value, and its lines stay within 75 octets', () => {
  const card = exportWriter('vcard', columns).person(
    { ...person, values: { ...person.values, last_name: 'Ø'.repeat(60) } },
    true,
  )
  const lines = card.split('\r\n')
  expect(lines.every((line) => Buffer.byteLength(line) <= 75)).toBe(true)
  const whole = card.replaceAll('\r\n ', '')
  expect(whole).toContain('FN:Tove\\; "T"')
  expect(whole).toContain('CATEGORIES:owner,a\\,b')
  expect(whole).toContain('NOTE:Flying style: stunt\\, power')
  expect(lines[0]).toBe('BEGIN:VCARD')
  expect(lines[1]).toBe('VERSION:4.0')
})
