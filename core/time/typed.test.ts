import fc from 'fast-check'
import { expect, test } from 'vitest'
import { dayText, momentText, readDayText, readMomentText, readTimeText } from '.'

// A Saturday.
const today = '2026-11-28'

test.each([
  ['23 Nov 2026', '2026-11-23'],
  ['Mon 23 November 2026', '2026-11-23'],
  ['23rd nov', '2027-11-23'],
  ['30 Nov', '2026-11-30'],
  ['28 nov', '2026-11-28'],
  ['23.11.2026', '2026-11-23'],
  ['1/12', '2026-12-01'],
  ['1/12/26', '2026-12-01'],
  ['2026-11-23', '2026-11-23'],
  ['today', '2026-11-28'],
  ['Tomorrow', '2026-11-29'],
  ['friday', '2026-12-04'],
  ['sat', '2026-12-05'],
  ['29 Feb 2028', '2028-02-29'],
  ['29 Feb 2027', null],
  ['31/02/2026', null],
  ['13/13/2026', null],
  ['soon', null],
  ['', null],
])('the day “%s” is %s', (text, day) => {
  expect(readDayText(text, today)).toBe(day)
})

test.each([
  ['9', '09:00'],
  ['9:40', '09:40'],
  ['09.40', '09:40'],
  ['0940', '09:40'],
  ['9am', '09:00'],
  ['12 am', '00:00'],
  ['12pm', '12:00'],
  ['9:40 PM', '21:40'],
  ['noon', '12:00'],
  ['24:00', null],
  ['9:60', null],
  ['13pm', null],
  ['', null],
])('the time “%s” is %s', (text, time) => {
  expect(readTimeText(text)).toBe(time)
})

test.each([
  ['Mon 23 Nov 2026 09:40', '2026-11-23T09:40'],
  ['23 Nov 2026, 9:40', '2026-11-23T09:40'],
  ['tomorrow at 9am', '2026-11-29T09:00'],
  ['2026-11-23T09:40', '2026-11-23T09:40'],
  ['fri noon', '2026-12-04T12:00'],
  ['23 Nov 2026', null],
  ['09:40', null],
])('“%s” is %s', (text, moment) => {
  expect(readMomentText(text, today)).toBe(moment)
})

test('what is shown is read as what it was', () => {
  const days = fc
    .date({ min: new Date('1900-01-01'), max: new Date('2100-01-01'), noInvalidDate: true })
    .map((date) => date.toISOString())
  fc.assert(
    fc.property(days, (iso) => {
      const [day, local] = [iso.slice(0, 10), iso.slice(0, 16)]
      expect(readDayText(dayText(day), today)).toBe(day)
      expect(readMomentText(momentText(local), today)).toBe(local)
    }),
  )
})
