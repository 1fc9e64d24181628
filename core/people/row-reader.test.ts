import fc from 'fast-check'
import Papa from 'papaparse'
import { expect, test } from 'vitest'
import { delimiterOf, delimiters, rowReader } from './row-reader'

const cell = fc.stringMatching(/^[a-z ,;"|\n]{0,6}$/)
const table = fc.integer({ min: 1, max: 5 }).chain((width) =>
  fc.array(fc.array(cell, { minLength: width, maxLength: width }), {
    minLength: 1,
    maxLength: 8,
  }),
)

test('rows are the same however the text is cut, with either end of lines', () => {
  fc.assert(
    fc.property(
      table,
      fc.constantFrom('\n', '\r\n'),
      fc.array(fc.integer({ min: 1, max: 40 }), { maxLength: 10 }),
      (rows, newline, cuts) => {
        const text = `${Papa.unparse(rows, { newline, quotes: true })}${newline}`
        const reader = rowReader(',')
        const read: string[][] = []
        let from = 0
        for (const cut of cuts) {
          read.push(...reader.push(text.slice(from, from + cut)))
          from += cut
        }
        read.push(...reader.end(text.slice(from)))
        expect(read.filter((row) => row.length > 1 || row[0] !== '')).toEqual(
          rows.filter((row) => row.length > 1 || row[0] !== ''),
        )
      },
    ),
    { numRuns: 400 },
  )
})

test.each([
  ['"a","b"\r', '\n"c","d"\r\n'],
  ['a,b\r', 'c,d\r'],
  ['a,b\r', '\nc,d'],
])('a first piece that ends within an end of line does not tell which it is', (first, then) => {
  const reader = rowReader(',')
  const rows = [...reader.push(first), ...reader.end(then)]
  expect(rows.filter((row) => row.length > 1)).toEqual([
    ['a', 'b'],
    ['c', 'd'],
  ])
})

test('the sign between cells is found under titles and with other signs in the cells', () => {
  for (const delimiter of delimiters) {
    const row = (...cells: string[]) => cells.join(delimiter)
    const other = delimiter === ',' ? ';' : ','
    const text = [
      'All members',
      row('mail', 'spent', 'wants'),
      row('a@b.example', `13${other}69`, 'kites'),
      row('c@d.example', '12', `kites${other} tails${other} lines`),
    ].join('\n')
    expect(delimiterOf(text)).toBe(delimiter)
  }
  expect(delimiterOf('sep=|\r\nmail,a,b\r\n')).toBe('|')
  expect(delimiterOf('mail\na@b.example\n')).toBe(',')
})
