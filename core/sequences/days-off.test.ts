import { expect, test } from 'vitest'
import { openFrom, officeHours, readDaysOff } from '.'

const calendar = (...events: string[]) =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', ...events.map((one) => `BEGIN:VEVENT\n${one}\nEND:VEVENT`)]
    .concat('END:VCALENDAR')
    .join('\n')
    .replaceAll('\n', '\r\n')
const days = (...events: string[]) => {
  const read = readDaysOff(calendar(...events), '2026-11-30')
  return 'days' in read ? read.days : read.problem
}

test('all-day events are days off, over several days, each year, and but for exceptions', () => {
  expect(
    days(
      'DTSTART;VALUE=DATE:20261224\nDTEND;VALUE=DATE:20261227\nSUMMARY:Christmas',
      'DTSTART;VALUE=DATE:20200101\nRRULE:FREQ=YEARLY\nEXDATE;VALUE=DATE:20280101',
      'DTSTART;VALUE=DATE:20270705\nDURATION:P1W',
    ),
  ).toEqual([
    ...['2026-12-24', '2026-12-25', '2026-12-26', '2027-01-01'],
    ...['2027-07-05', '2027-07-06', '2027-07-07', '2027-07-08', '2027-07-09'],
    ...['2027-07-10', '2027-07-11', '2029-01-01'],
  ])
})

test('a file may hold several calendars', () => {
  const [one, other] = ['20261224', '20270101'].map((day) => calendar(`DTSTART;VALUE=DATE:${day}`))
  expect(readDaysOff(`${one}\r\n${other}`, '2026-11-30')).toEqual({
    days: ['2026-12-24', '2027-01-01'],
  })
})

test('events with hours, cancelled ones, and days that are past or far ahead are none', () => {
  expect(
    days(
      'DTSTART:20261224T100000Z\nDTEND:20261224T110000Z',
      'DTSTART;VALUE=DATE:20261224\nSTATUS:CANCELLED',
      'DTSTART;VALUE=DATE:20251224',
      'DTSTART;VALUE=DATE:20351224',
    ),
  ).toMatch(/No all-day event in it falls in the next 3 years/)
})

test('what is no calendar, never ends or is too much is refused or passed over', () => {
  for (const text of ['', 'Dear all, we are closed on Friday.', 'BEGIN:VCALENDAR', '{"a":1}'])
    expect(readDaysOff(text, '2026-11-30')).toHaveProperty('problem')
  expect(days('DTSTART;VALUE=DATE:20261224\nRRULE:FREQ=SECONDLY')).toMatch(/No all-day/)
  expect(days('DTSTART;VALUE=DATE:20261224\nRRULE:FREQ=DAILY')).toMatch(/more than 400 days off/)
})

test('on a day off nobody goes on, whatever the day of the week', () => {
  const hours = { ...officeHours, off: ['2026-12-24', '2026-12-25'] }
  const wednesday = Date.UTC(2026, 11, 23, 20)
  // Thursday and Friday are off, then comes the weekend.
  expect(openFrom(wednesday, hours, 'UTC')).toBe(Date.UTC(2026, 11, 28, 8))
  expect(openFrom(Date.UTC(2026, 11, 24, 10), hours, 'UTC')).toBe(Date.UTC(2026, 11, 28, 8))
  expect(openFrom(Date.UTC(2026, 11, 23, 10), hours, 'UTC')).toBe(Date.UTC(2026, 11, 23, 10))
  // The day is the one that it is there.
  expect(openFrom(Date.UTC(2026, 11, 23, 16), hours, 'Asia/Tokyo')).toBe(Date.UTC(2026, 11, 27, 23))
})
