import { test, expect } from 'vitest'
import fc from 'fast-check'
import { dateOrderOf, readDate } from './dates'

test('dates are read in their order and must exist', () => {
  expect(readDate('01/06/2019', 'dmy')).toBe('2019-06-01')
  expect(readDate('01/06/2019', 'mdy')).toBe('2019-01-06')
  expect(readDate('3.7.26', 'dmy')).toBe('2026-07-03')
  expect(readDate('3.7.62', 'dmy')).toBe('1962-07-03')
  expect(readDate('1962-09-22', 'dmy')).toBe('1962-09-22')
  expect(readDate('29/02/2024', 'dmy')).toBe('2024-02-29')
  expect(readDate('31/02/2021', 'dmy')).toBeNull()
  expect(readDate('soon', 'dmy')).toBeNull()
})

test('every date written in an order is read back in it', () => {
  fc.assert(
    fc.property(
      fc.date({ min: new Date('1900-01-01'), max: new Date('2099-12-31'), noInvalidDate: true }),
      (date) => {
        const iso = date.toISOString().slice(0, 10)
        const [y, m, d] = iso.split('-')
        expect(readDate(`${d}/${m}/${y}`, 'dmy')).toBe(iso)
        expect(readDate(`${m}/${d}/${y}`, 'mdy')).toBe(iso)
        expect(readDate(iso, 'mdy')).toBe(iso)
      },
    ),
  )
})

test('the order of dates is told by those that fit only one', () => {
  expect(dateOrderOf(['01/06/2019', '22/01/2017']).order).toBe('dmy')
  expect(dateOrderOf(['01/06/2019', '01/22/2017']).order).toBe('mdy')
})

test.each([
  ['2024-03-03T10:20:00Z', '2024-03-03'],
  ['2024-03-03 23:59:59+02:00', '2024-03-03'],
  ['2024-03-03T23:59:59.123-0800', '2024-03-03'],
  ['2024/03/03 10:20', '2024-03-03'],
  ['03/04/2024 10:15 PM', '2024-04-03'],
  ['03/04/2024, 10.15', '2024-04-03'],
  ['March 3, 2024', '2024-03-03'],
  ['Sunday, March 3rd, 2024', '2024-03-03'],
  ['3 Mar 2024', '2024-03-03'],
  ['3-Mar-24', '2024-03-03'],
  ['3 Sept. 2024', '2024-09-03'],
  ['3. März 2024', '2024-03-03'],
  ['3. Mai 2024 10:00', '2024-05-03'],
  ['1er août 2024', '2024-08-01'],
  ['15 févr. 2024', '2024-02-15'],
  ['3 de marzo de 2024', '2024-03-03'],
  ['3 maart 2024', '2024-03-03'],
  ['10 dicembre 2024', '2024-12-10'],
  ['3 de fevereiro de 2024', '2024-02-03'],
  ['2024 March 3', '2024-03-03'],
  ['2024年3月3日', '2024-03-03'],
])('%s is %s', (text, day) => {
  expect(readDate(text, 'dmy')).toBe(day)
})

test.each([
  'March 2024',
  '31 June 2024',
  '3 Marz',
  'May Day 2024',
  '12:30',
  '2024-13-01',
  'Mar 3 4 2024',
])('%s is no date', (text) => {
  for (const order of ['dmy', 'mdy', 'ymd'] as const) expect(readDate(text, order)).toBeNull()
})

test('seconds, milliseconds and days of a spreadsheet are counted', () => {
  expect(readDate('1709461200', 'unix')).toBe('2024-03-03')
  expect(readDate('1709461200123', 'unix')).toBe('2024-03-03')
  expect(readDate('45354', 'serial')).toBe('2024-03-03')
  expect(readDate('45354.75', 'serial')).toBe('2024-03-03')
  expect(readDate('61', 'serial')).toBe('1900-03-01')
  expect(readDate('12', 'serial')).toBeNull()
})

test('bare numbers are dates only where the column is called so', () => {
  const serials = ['45354', '45001', '44000']
  expect(dateOrderOf(serials).dates).toBe(0)
  expect(dateOrderOf(serials, true)).toMatchObject({ order: 'serial', dates: 3, ambiguous: false })
})

test('dates that read as other days in another order are ambiguous, and no others', () => {
  expect(dateOrderOf(['03/04/2024', '05/06/2023']).ambiguous).toBe(true)
  expect(dateOrderOf(['03/04/2024', '25/06/2023'])).toMatchObject({
    order: 'dmy',
    ambiguous: false,
  })
  expect(dateOrderOf(['03/03/2024', '2024-02-01', '4 May 2024']).ambiguous).toBe(false)
})

test('an order found is one under which no other reads more of them', () => {
  const day = fc.tuple(fc.integer({ min: 1, max: 31 }), fc.integer({ min: 1, max: 31 }))
  fc.assert(
    fc.property(fc.array(day, { minLength: 1, maxLength: 8 }), (days) => {
      const cells = days.map(([a, b]) => `${a}/${b}/2024`)
      const found = dateOrderOf(cells)
      for (const order of ['dmy', 'mdy'] as const)
        expect(cells.filter((cell) => readDate(cell, order)).length).toBeLessThanOrEqual(
          found.dates,
        )
    }),
  )
})
