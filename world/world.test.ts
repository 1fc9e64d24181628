import { expect, test } from 'vitest'
import fc from 'fast-check'
import { Agenda } from './agenda'
import { chanceOf } from './chance'
import { habitsOf, readingTime } from './readers/habits'
import { readLetter } from './readers/letter'

test('the agenda gives what is due, the earliest first', () => {
  fc.assert(
    fc.property(fc.array(fc.nat(1000)), fc.nat(1000), (times, now) => {
      const agenda = new Agenda<number>()
      for (const at of times) agenda.add(at, at)
      const due = times.filter((at) => at <= now).sort((a, b) => a - b)
      expect(agenda.takeDue(now, Infinity)).toEqual(due)
      expect(agenda.size).toBe(times.length - due.length)
    }),
  )
})

test('chances are even and the same for the same words', () => {
  const drawn = Array.from({ length: 5_000 }, (_, i) => chanceOf('draw', i))
  expect(drawn.reduce((sum, n) => sum + n, 0) / drawn.length).toBeCloseTo(0.5, 1)
  expect(drawn.filter((n) => n < 0.1).length / drawn.length).toBeCloseTo(0.1, 1)
  expect(chanceOf('a', 1)).toBe(chanceOf('a', 1))
})

test('people read after a letter has come, and most within two days', () => {
  let n = 0
  const chance = () => chanceOf('time', n++)
  const waits = Array.from(
    { length: 500 },
    (_, i) => readingTime(habitsOf(`p${i}@x.example`), 1e12, chance) - 1e12,
  )
  expect(Math.min(...waits)).toBeGreaterThan(0)
  expect(waits.filter((wait) => wait < 48 * 3_600_000).length).toBeGreaterThan(450)
})

test('a mail program finds the pictures, links and the way out', () => {
  const letter = readLetter(
    [
      'Subject: =?UTF-8?B?V2luZCDigJQ=?=',
      ' =?UTF-8?B?IDU=?=',
      'Message-ID: <a@b.example>',
      'List-Unsubscribe: <https://s.example/u/x>,',
      ' <mailto:l@s.example>',
      'Content-Type: multipart/alternative; boundary="x"',
      '',
      '--x',
      'Content-Type: text/html; charset=utf-8',
      '',
      '<a class=3D"b" href=3D"https://s.example/c/=',
      'abc/0?x=3D1&amp;y">go</a><img alt=3D"" src=3D"https://s.example/o/abc.gif">',
      '--x--',
    ].join('\r\n'),
  )
  expect(letter).toEqual({
    subject: 'Wind — 5',
    messageId: '<a@b.example>',
    unsubscribe: 'https://s.example/u/x',
    pictures: ['https://s.example/o/abc.gif'],
    links: ['https://s.example/c/abc/0?x=1&y'],
  })
})
