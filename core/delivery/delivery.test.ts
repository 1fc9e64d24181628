import { randomBytes } from 'node:crypto'
import { simpleParser } from 'mailparser'
import { test, expect } from 'vitest'
import fc from 'fast-check'
import { isFinal, mayMove, recipientStates, openStates } from './states'
import { waterfall, waterfallTests } from './waterfall'
import { makeToken, readToken } from './token'
import { nextAttempt, GIVE_UP_AFTER } from './retry'
import { readAnswer } from './answer'
import { providerPacer, refill, takeFromBucket } from './pace'
import { quotedPrintable } from './quoted-printable'
import { encodeHeaderText } from './header-text'
import { MINUTE } from '../time'

test('states only move forward: no way leads from a final state back to an open one', () => {
  const reachable = (from: (typeof recipientStates)[number], seen = new Set([from])) => {
    for (const to of recipientStates)
      if (mayMove(from, to) && !seen.has(to)) {
        seen.add(to)
        reachable(to, seen)
      }
    return seen
  }
  for (const state of recipientStates.filter(isFinal))
    for (const open of [...openStates, 'uncertain'] as const)
      expect(reachable(state).has(open)).toBe(false)
  for (const state of openStates) expect([...reachable(state)].some(isFinal)).toBe(true)
})

test("the waterfall's parts sum to the whole", () => {
  fc.assert(
    fc.property(
      fc.nat(1e6),
      fc.subarray([...waterfallTests.slice(1)]),
      fc.nat(1e5),
      (n, tests, out) => {
        const onList = n + tests.length * out
        const steps = waterfall(
          onList,
          tests.map((step) => [step, out]),
        )
        expect(steps.map(({ step }) => step)).toEqual(['on-list', ...tests])
        expect(steps.at(-1)!.left).toBe(n)
        expect(steps.reduce((sum, step) => sum + step.out, steps.at(-1)!.left)).toBe(onList)
      },
    ),
  )
})

const key = randomBytes(32)
const ids = fc.integer({ min: 0, max: 2 ** 48 })
test('tokens of 80 bits, as they are in mail that has gone out, hold for those mailings alone', () => {
  const key = Buffer.from('0123456789abcdef0123456789abcdef')
  // Made by the version before.
  const short = 'f6d22s32ob2wy2xdq2xbzdq'
  const read = (shortUpTo: number, by = key) => readToken({ key: by, shortUpTo }, 'leave', short)
  expect(read(47)).toEqual({ mailingId: 47, personId: 1_234_567, round: 0 })
  expect(read(46)).toBeNull()
  expect(read(-1)).toBeNull()
  expect(read(47, randomBytes(32))).toBeNull()
  expect(makeToken(key, 'leave', 47, 1_234_567).length).toBeGreaterThan(short.length)
})

test('what a token encodes it decodes, and nothing else verifies', () => {
  fc.assert(
    fc.property(
      ids,
      ids,
      fc.nat(200),
      fc.constantFrom(...'abcdefghijklmnopqrstuvwxyz234567'),
      (mailingId, personId, at, letter) => {
        const token = makeToken(key, 'click', mailingId, personId)
        expect(readToken({ key, shortUpTo: -1 }, 'click', token)).toEqual({
          mailingId,
          personId,
          round: 0,
        })
        expect(readToken({ key, shortUpTo: -1 }, 'leave', token)).toBeNull()
        expect(readToken({ key: randomBytes(32), shortUpTo: -1 }, 'click', token)).toBeNull()
        const place = at % token.length
        const changed = token.slice(0, place) + letter + token.slice(place + 1)
        if (changed !== token)
          expect(readToken({ key, shortUpTo: -1 }, 'click', changed)).toBeNull()
        expect(readToken({ key, shortUpTo: -1 }, 'click', token + letter)).toBeNull()
        expect(readToken({ key, shortUpTo: -1 }, 'click', token.slice(0, -1))).toBeNull()
      },
    ),
  )
  fc.assert(
    fc.property(fc.string(), (text) => readToken({ key, shortUpTo: -1 }, 'open', text) === null),
  )
})

test('retries wait longer each time and give up after two days', () => {
  fc.assert(
    fc.property(fc.double({ min: 0, max: 1, noNaN: true }), (chance) => {
      let now = 0
      let attempts = 1
      let last = 0
      for (;;) {
        const next = nextAttempt(attempts, 0, now, chance)
        if (next === null) break
        expect(next - now).toBeGreaterThanOrEqual(last - 1)
        expect(next).toBeLessThanOrEqual(GIVE_UP_AFTER)
        last = next - now
        now = next
        attempts++
      }
      expect(attempts).toBeGreaterThan(10)
    }),
  )
})

test.each([
  [550, '5.1.1 no such user', 'failed', 'no such address'],
  [550, 'Requested action not taken: user unknown', 'failed', 'no such address'],
  [552, '5.2.2 mailbox full', 'failed', 'mailbox full'],
  [554, '5.7.1 rejected as spam', 'failed', 'content refused'],
  [421, '4.7.0 too many messages', 'deferred', 'busy'],
  [451, 'try later', 'deferred', 'busy'],
] as const)('%i %s is %s', (code, text, outcome, failure) => {
  expect(readAnswer(code, text)).toMatchObject({ outcome, failure })
})

test('a pace is kept over any run of moments, and a leap of the clock fills the bucket once', () => {
  fc.assert(
    fc.property(
      fc.array(fc.nat(5_000), { minLength: 1 }),
      fc.integer({ min: 1, max: 600 }),
      (waits, perMinute) => {
        let bucket = { level: 0, at: 0 }
        let now = 0
        let sent = 0
        for (const wait of waits) {
          now += wait
          const turn = takeFromBucket(refill(bucket, perMinute, now), 10)
          bucket = turn.bucket
          sent += turn.taken
        }
        expect(sent).toBeLessThanOrEqual((now * perMinute) / MINUTE + 1e-6)
      },
    ),
  )
  expect(refill({ level: 0, at: 0 }, 100, 1e9).level).toBe(100)
  expect(refill({ level: 0, at: 0 }, null, 1).level).toBe(Infinity)
})

test('quoted-printable is read back by an independent reader, in lines of at most 76', async () => {
  await fc.assert(
    fc.asyncProperty(fc.string({ unit: 'grapheme', maxLength: 400 }), async (text) => {
      const body = quotedPrintable(`${text}.`)
      for (const line of body.split('\r\n')) expect(line.length).toBeLessThanOrEqual(76)
      expect(body).toMatch(/^[\x20-\x7e\r\n\t]*$/)
      const mail = await simpleParser(
        `Content-Type: text/plain; charset=utf-8\r\nContent-Transfer-Encoding: quoted-printable\r\n\r\n${body}`,
      )
      const expected = `${text}.`.replace(/\r\n|\r|\n/g, '\n')
      expect(mail.text!.replace(/\n$/, '')).toBe(expected.replace(/\n$/, ''))
    }),
    { numRuns: 60 },
  )
})

test('header text is read back, and can never begin another header', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.string({ unit: 'grapheme', minLength: 1, maxLength: 200 }),
      async (text) => {
        const header = encodeHeaderText(text)
        expect(header).toMatch(/^[\x20-\x7e]*(\r\n [\x20-\x7e]+)*$/)
      },
    ),
  )
  const folded = encodeHeaderText('Žluté draky — na vítr čekají už týden, a dnes je síla pět!')
  expect((await simpleParser(`Subject: ${folded}\r\n\r\n.`)).subject).toBe(
    'Žluté draky — na vítr čekají už týden, a dnes je síla pět!',
  )
  expect(encodeHeaderText('Hello\r\nBcc: everyone@x.example')).toBe('Hello Bcc: everyone@x.example')
})

test('a provider with a pace of its own never gets more than a minute’s worth and its pace; others wait for nothing', () => {
  expect(providerPacer([])).toBeNull()
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 90 }),
      fc.array(fc.integer({ min: 0, max: 20_000 }), { minLength: 1, maxLength: 300 }),
      (perMinute, gaps) => {
        const pacer = providerPacer([{ domain: 'slow.example', perMinute }])!
        const start = 1e12
        let now = start
        const gone: number[] = []
        for (const gap of gaps) {
          now += gap
          expect(pacer.mayGo('other.example', now)).toBe(now)
          const may = pacer.mayGo('slow.example', now)
          if (may === now) gone.push(now)
          else expect(may).toBeGreaterThan(now)
        }
        // In any stretch: what the bucket holds, and what flows in meanwhile.
        gone.forEach((from, i) => {
          const last = gone.at(-1)!
          expect(gone.length - i).toBeLessThanOrEqual(
            perMinute + ((last - from) * perMinute) / 60_000 + 1e-6,
          )
        })
      },
    ),
  )
})

test('those who wait for a provider are told times one after the other, at its pace', () => {
  const pacer = providerPacer([{ domain: 'slow.example', perMinute: 2 }])!
  const now = 1e12
  expect([1, 2, 3, 4].map(() => pacer.mayGo('slow.example', now) - now)).toEqual([
    0, 0, 30_000, 60_000,
  ])
})
