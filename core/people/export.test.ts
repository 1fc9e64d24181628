import fc from 'fast-check'
import Papa from 'papaparse'
import { expect, test } from 'vitest'
import { csvRow, exportWriter, harmless, type ExportedPerson } from './export'
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
}

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
  ['=HYPERLINK("https://x.example")', `'=HYPERLINK("https://x.example")`],
  ['+cmd|calc', "'+cmd|calc"],
  ['-1+2', "'-1+2"],
  ['@sum', "'@sum"],
  ['\t=1', "'\t=1"],
  ['-12.5', '-12.5'],
  ['+44', '+44'],
  ['plain', 'plain'],
])('the cell %j becomes %j', (cell, safe) => expect(harmless(cell)).toBe(safe))

test('CSV has a header of the fields’ names and marks itself as UTF-8', () => {
  const writer = exportWriter('csv', fields)
  expect(writer.head).toBe('\uFEFFAddress,First name,Last name,Flying style,Tags,Lists,Joined\r\n')
  expect(writer.person(person, true)).toContain('"stunt, power"')
})

test('JSON is an array of people, also an empty one', () => {
  const writer = exportWriter('json', fields)
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
  const card = exportWriter('vcard', fields).person(
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
