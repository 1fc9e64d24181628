import { afterEach, expect, test } from 'vitest'
import { readInbound } from '../../core/inbound'
import { changeable, changeProvider, mailboxExists, providerOf } from '../post-office/providers'
import { bounceReport } from '../post-office/reports'
import { agentOf } from './habits'
import type { ReadLetter } from './letter'
import { outcomeOf } from './outcome'

const usual = { ...providerOf('a@harbourmail.example') }
afterEach(() => void changeProvider('harbourmail.example', usual as never))

const now = Date.UTC(2026, 10, 24, 9)
const letter = (no: number): ReadLetter => ({
  subject: 'Wind',
  messageId: `<${no}@galewright.example>`,
  unsubscribe: 'https://mail.galewright.example/u/tok',
  ownPage: 'https://mail.galewright.example/r/tok',
  confirmBy: null,
  leaveBy: null,
  replyTo: 'r-x@galewright.example',
  pictures: ['https://mail.galewright.example/o/1.gif'],
  links: ['https://mail.galewright.example/c/1/0'],
  html: '',
})
const MANY = 30_000
function outcomes(patience = 1) {
  const all = Array.from({ length: MANY }, (_, i) => `r${i}@harbourmail.example`)
    .filter(mailboxExists)
    .map((address, i) =>
      outcomeOf({ address, returnPath: 'b@galewright.example', folder: 'inbox' }, letter(i), {
        now,
        seed: 'rates',
        patience,
      }),
    )
  const share = (holds: (deeds: (typeof all)[number]) => boolean) =>
    all.filter(holds).length / all.length
  const reports = (words: RegExp) => (deeds: (typeof all)[number]) =>
    deeds.some(({ deed }) => deed.do === 'report' && words.test(deed.message))
  const looks = (deeds: (typeof all)[number]) =>
    deeds.filter(({ deed }) => deed.do === 'get' && deed.url.includes('/o/'))
  const opened = all.filter((deeds) => looks(deeds).length > 0)
  return {
    complained: share(reports(/Feedback-Type: abuse/)),
    away: share(reports(/Auto-Submitted: auto-replied\r\nIn-Reply-To/)),
    replied: share(reports(/Subject: =\?utf-8\?B\?UmU6/)),
    opened: opened.length / all.length,
    again: opened.filter((deeds) => looks(deeds).length > 1).length / opened.length,
    elsewhere:
      opened.filter(
        (deeds) => new Set(looks(deeds).map(({ deed }) => 'agent' in deed && deed.agent)).size > 1,
      ).length / opened.length,
    all,
  }
}

test('readers complain, answer, are away, open again and pass on about as often as real ones', () => {
  const found = outcomes()
  expect(found.complained).toBeGreaterThan(1 / 10_000)
  expect(found.complained).toBeLessThan(1 / 2_000)
  expect(found.away).toBeGreaterThan(0.008)
  expect(found.away).toBeLessThan(0.012)
  expect(found.replied).toBeGreaterThan(0.0004)
  expect(found.replied).toBeLessThan(0.002)
  expect(found.opened).toBeGreaterThan(0.25)
  expect(found.opened).toBeLessThan(0.6)
  expect(found.again).toBeGreaterThan(0.28)
  expect(found.again).toBeLessThan(0.39)
  expect(found.elsewhere).toBeGreaterThan(0.0005)
  expect(found.elsewhere).toBeLessThan(0.01)
})

test('too much mail is complained about more, and opened less', () => {
  const [gladly, weary] = [outcomes(), outcomes(0.5)]
  expect(weary.complained).toBeGreaterThan(2 * gladly.complained)
  expect(weary.opened).toBeLessThan(0.7 * gladly.opened)
})

test('some who have had enough ask for less where a letter offers it, and never both', () => {
  const { all } = outcomes()
  const does = (kind: string) => all.filter((deeds) => deeds.some(({ deed }) => deed.do === kind))
  const [less, page, header] = ['less-by-page', 'leave-by-page', 'leave-by-header'].map(does)
  const enough = less!.length + page!.length + header!.length
  expect(less!.length / enough).toBeGreaterThan(0.12)
  expect(less!.length / enough).toBeLessThan(0.42)
  expect(less!.some((deeds) => page!.includes(deeds) || header!.includes(deeds))).toBe(false)
  const wishes = less!.flatMap((deeds) =>
    deeds.flatMap(({ deed }) => (deed.do === 'less-by-page' ? [deed.wish.do] : [])),
  )
  expect(new Set(wishes)).toEqual(new Set(['weekly', 'pause']))
})

test('each habit of a provider can be changed, and nothing that is no share is taken', () => {
  changeProvider('harbourmail.example', { complaints: 0.1, reopens: 0, away: 2, replies: 'x' })
  const found = outcomes()
  expect(found.complained).toBeGreaterThan(0.05)
  expect(found.again).toBeLessThan(0.02)
  expect(found.away).toBeLessThan(0.012)
  expect(changeProvider('nowhere.example', {})).toBe(false)
  changeProvider('harbourmail.example', { reads: 0, away: 0 })
  expect(outcomes()).toMatchObject({ opened: 0, complained: 0, replied: 0, away: 0 })
  changeProvider('harbourmail.example', { reads: 1, full: 1 })
  expect(outcomes().opened).toBe(0)
  expect(Object.keys(changeable)).toContain('forwards')
})

test('people read on phones more than on tablets', () => {
  const agents = Array.from({ length: 4_000 }, (_, i) => agentOf(`r${i}@inkpost.example`))
  const on = (what: string) => agents.filter((agent) => agent.includes(what)).length
  expect(on('(phone)')).toBeGreaterThan(1_800)
  expect(on('(tablet)')).toBeLessThan(500)
})

test.each(['report', 'words', 'returned', 'German'] as const)(
  'what comes back in the shape “%s” is read as what it says',
  async (shape) => {
    for (const [why, failure] of [
      ['no mailbox', 'no such address'],
      ['full', 'mailbox full'],
    ] as const) {
      const source = bounceReport('b@galewright.example', 'a@oldmill.example', '<1@x>', shape, why)
      const { reading } = await readInbound(source)
      expect([shape, why, reading]).toMatchObject([shape, why, { kind: 'bounced', failure }])
    }
  },
)

test('who gets a confirming letter presses its button soon, or never; a scanner only looks', () => {
  const confirmBy = 'https://mail.galewright.example/s/confirm/abc'
  const came = (address: string, i: number) =>
    outcomeOf(
      { address, returnPath: 'b@galewright.example', folder: 'inbox' },
      { ...letter(i), links: [], pictures: [], confirmBy },
      { now, seed: 'confirming', patience: 1 },
    )
  const people = Array.from({ length: 3_000 }, (_, i) => `c${i}@harbourmail.example`)
  const pressed = people
    .filter(mailboxExists)
    .map((address, i) => came(address, i).filter(({ deed }) => deed.do === 'confirm-by-page'))
  const share = pressed.filter(({ length }) => length === 1).length / pressed.length
  expect(share).toBeGreaterThan(0.74)
  expect(share).toBeLessThan(0.82)
  expect(pressed.flat().every(({ at }) => at > now && at < now + 32 * 60_000)).toBe(true)
  const scanned = came('c1@workdesk.example', 1).filter(({ deed }) => deed.do === 'get')
  expect(scanned).toEqual([
    { at: now + 800, deed: expect.objectContaining({ url: confirmBy, method: 'HEAD' }) as never },
  ])
})
