import fc from 'fast-check'
import { expect, test } from 'vitest'
import { chanceOf } from '../chance'
import { mailboxExists, providerOf, providers } from '../post-office/providers'
import { habitsOf, readingTime } from './habits'
import { readLetter } from './letter'

const HOUR = 3_600_000

test('a reader is always the same reader', () => {
  fc.assert(
    fc.property(fc.emailAddress(), (address) => {
      expect(habitsOf(address)).toEqual(habitsOf(address))
      expect(mailboxExists(address)).toBe(mailboxExists(address))
    }),
  )
})

test('chances are spread evenly over 0 to 1', () => {
  const tenths = new Array<number>(10).fill(0)
  for (let i = 0; i < 20_000; i++) tenths[Math.floor(chanceOf('even', i) * 10)]!++
  for (const n of tenths) expect(Math.abs(n - 2_000)).toBeLessThan(250)
})

test('habits are shares, and keen readers click more than they leave', () => {
  for (let i = 0; i < 500; i++) {
    const habits = habitsOf(`reader${i}@inkpost.example`)
    for (const share of [habits.opens, habits.clicks, habits.leaves]) {
      expect(share).toBeGreaterThanOrEqual(0)
      expect(share).toBeLessThanOrEqual(1)
    }
    expect(habits.hour).toBeGreaterThanOrEqual(0)
    expect(habits.hour).toBeLessThan(24)
  }
})

test('nobody reads a letter before it came, and most within three days', () => {
  fc.assert(
    fc.property(fc.nat(500), fc.nat(10 * 365 * 24), fc.nat(), (reader, hours, seed) => {
      let step = 0
      const at = hours * HOUR
      const read = readingTime(habitsOf(`r${reader}@inkpost.example`), at, () =>
        chanceOf(seed, step++),
      )
      expect(read).toBeGreaterThan(at)
      expect(read).toBeLessThan(at + 30 * 24 * HOUR)
    }),
  )
})

test('each provider has a habit of its own, and unknown domains behave as usual', () => {
  expect(providers.map(({ name }) => name)).toEqual([
    'Harbourmail',
    'Inkpost',
    'Oldmill Mail',
    'Workdesk',
    'Veilpost',
    'Shutterbox',
  ])
  expect(providerOf('tove@veilpost.example').prefetches).toBe(true)
  expect(providerOf('tove@workdesk.example').scansLinks).toBe(true)
  expect(providerOf('tove@elsewhere.example')).toMatchObject({
    domain: 'elsewhere.example',
    scansLinks: false,
  })
  const missing = Array.from({ length: 5_000 }, (_, i) => `m${i}@oldmill.example`).filter(
    (address) => !mailboxExists(address),
  )
  expect(missing.length).toBeGreaterThan(50)
  expect(missing.length).toBeLessThan(160)
})

test('a mail program finds a letter’s headers, pictures and links through its encoding', () => {
  const source = [
    'From: hello@galewright.example',
    'Subject: =?utf-8?B?V2luZCDigJQg?= =?utf-8?B?Zm9yY2UgNQ==?=',
    'Message-ID: <abc@galewright.example>',
    'Reply-To: r-x@galewright.example',
    'List-Unsubscribe: <https://mail.galewright.example/u/tok>,',
    ' <mailto:leave-x@galewright.example>',
    'Content-Type: multipart/alternative; boundary="b"',
    '',
    '--b',
    'Content-Type: text/plain; charset=utf-8',
    '',
    'https://not-a-link.example',
    '--b',
    'Content-Type: text/html; charset=utf-8',
    'Content-Transfer-Encoding: quoted-printable',
    '',
    '<p>Force 5 =E2=80=94 <a class=3D"x" href=3D"https://mail.galewright.exam=',
    'ple/c/tok/1?a=3D1&amp;b=3D2">go</a> <a href=3D"https://mail.galewright.example/r/tok">Change</a><img alt=3D"" src=3D"https://mail.galewright.example/o/tok.gif"></p>',
    '--b--',
  ].join('\r\n')
  expect(readLetter(source)).toEqual({
    confirmBy: null,
    subject: 'Wind — force 5',
    html: expect.stringContaining('<p>Force 5 — <a') as string,
    messageId: '<abc@galewright.example>',
    unsubscribe: 'https://mail.galewright.example/u/tok',
    ownPage: 'https://mail.galewright.example/r/tok',
    leaveBy: 'leave-x@galewright.example',
    replyTo: 'r-x@galewright.example',
    pictures: ['https://mail.galewright.example/o/tok.gif'],
    links: ['https://mail.galewright.example/c/tok/1?a=1&b=2'],
  })
})
