import fc from 'fast-check'
import { expect, test } from 'vitest'
import { catalog, rule } from './arbitrary'
import {
  fold,
  parseRule,
  readRule,
  readyRule,
  segmentsWithin,
  tidyRule,
  writeRule,
  type Rule,
} from '.'

test('a rule written as text is read back as the same rule', () => {
  fc.assert(
    fc.property(rule, (some) => {
      const text = writeRule(some, catalog)
      expect(parseRule(text, catalog)).toEqual({ ok: true, rule: tidyRule(some) })
    }),
    { numRuns: 2_000 },
  )
})

test('a rule survives being stored, and reading it twice changes nothing', () => {
  fc.assert(
    fc.property(rule, (some) => {
      expect(readRule(JSON.parse(JSON.stringify(some)))).toEqual(some)
    }),
    { numRuns: 500 },
  )
})

test('what is no rule is not read as one', () => {
  fc.assert(
    fc.property(fc.anything(), (something) => {
      const read = readRule(something)
      if (read) expect(readRule(JSON.parse(JSON.stringify(read)))).toEqual(read)
    }),
  )
})

test.each([
  'on list "Wind notes" and (opened any mailing in the last 90 days or joined in the last 30 days)',
  'Town is "Orrin" and not Flying style includes "stunt"',
  'neither tagged "owner" nor "Left hand" is yes',
  'bought over 1 times in category "stunt" in the last 60 days',
  'spent between 10.50 and 99',
  'clicked link 1 of mailing "Wind notes 1"',
  'was sent mailing #2 at most 0 times',
  'did "basket" at least 2 times in the last 7 days where "worth" is over 40',
  'Birthday has its anniversary within 7 days',
  'tier is warm, keen',
  'unsubscribed from list "Wind notes" in the last 30 days by "form"',
  '"Height (m) is" is under 1.25',
  'inside sequence "Welcome" or finished sequence #2 or never in sequence "Welcome"',
  'opened any mailing of sequence "Welcome" at least 2 times in the last 30 days',
  'last bought before 1 Jan 2026 and domain is "inkpost.example"',
])('%s', (text) => {
  const parsed = parseRule(text, catalog)
  expect(parsed.ok && writeRule(parsed.rule, catalog).replace('10.5 ', '10.50 ')).toBe(text)
})

test.each([
  ['', 0, /Write a rule/],
  ['joined', 6, /A time is needed/],
  ['joined in the last many days', 19, /whole number/],
  ['on list "Nowhere"', 8, /There is no list “Nowhere”/],
  ['colour is "red"', 0, /Nothing is known by “colour”/],
  ['tagged "owner" tagged "press"', 15, /“and” or “or” may be missing/],
  ['(tagged "owner"', 15, /“\)” is missing/],
  ['tagged "owner', 7, /has no end/],
  ['tagged "owner" & tagged "press"', 15, /“&” has no meaning/],
  ['joined before 2026-13-40', 14, /A day is needed/],
  ['opened mailing "Same name"', 15, /several mailings “Same name”: write #2 or #3/],
  ['domain is over 5', 7, /compared as text/],
  ['tier is gold', 8, /silent, cool, warm, keen/],
])('the fault in %j is pointed at', (text, at, message) => {
  const parsed = parseRule(text, catalog)
  expect(parsed).toMatchObject({ ok: false, at })
  expect(!parsed.ok && parsed.message).toMatch(message)
})

test('no text breaks the reader, and every fault lies within the text', () => {
  const words = fc.constantFrom(
    'on',
    'list',
    'and',
    'or',
    '(',
    ')',
    'not',
    'joined',
    'in',
    'the',
    'last',
    '3',
    'days',
    '"x"',
    'Town',
    'is',
    '2026-11-23',
    'opened',
    'any',
    'mailing',
    '#1',
    ',',
  )
  fc.assert(
    fc.property(
      fc.oneof(
        fc.string({ unit: 'grapheme' }),
        fc.array(words).map((all) => all.join(' ')),
      ),
      (text) => {
        const parsed = parseRule(text, catalog)
        if (parsed.ok) return
        expect(parsed.at).toBeGreaterThanOrEqual(0)
        expect(parsed.at + parsed.length).toBeLessThanOrEqual(text.length)
      },
    ),
    { numRuns: 1_000 },
  )
  expect(parseRule('('.repeat(500), catalog)).toMatchObject({ ok: false })
})

test('what is gone is named where it stands, and the whole rule then matches nobody', () => {
  const missing: Rule = {
    kind: 'none',
    of: [
      { kind: 'tagged', tagId: 99 },
      { kind: 'all', of: [{ kind: 'field', key: 'gone', test: { is: 'empty' } }] },
      { kind: 'field', key: 'town', test: { is: 'yes' } },
      { kind: 'segment', segmentId: 99 },
    ],
  }
  const { rule: ready, problems } = readyRule(missing, catalog)
  expect(ready).toBeNull()
  expect(problems.map(({ path }) => path)).toEqual([[0], [1, 0], [2], [3]])
})

test('a segment that would be part of itself is found, however far around', () => {
  const inA: Rule = { kind: 'segment', segmentId: 8 }
  const segments = new Map(catalog.segments)
  segments.set(7, { name: 'A', rule: inA, frozen: false })
  segments.set(8, {
    name: 'B',
    rule: { kind: 'none', of: [{ kind: 'segment', segmentId: 7 }] },
    frozen: false,
  })
  const around = { ...catalog, segments }
  expect(readyRule({ kind: 'segment', segmentId: 7 }, around).problems[0]!.message).toMatch(
    /part of itself/,
  )
  expect([...segmentsWithin(inA, around)].sort()).toEqual([7, 8])
})

test('texts are the same without case and accents', () => {
  expect(fold('ÅNGSTRÖM')).toBe(fold('angstrom'))
  expect(fold('Čapek')).toBe('capek')
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme' }), (text) => {
      expect(fold(fold(text))).toBe(fold(text))
    }),
  )
})
