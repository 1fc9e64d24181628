import fc from 'fast-check'
import { expect, test } from 'vitest'
import { catalog, rule } from './arbitrary'
import { readTexts, showTexts } from './values/comparison'
import { parseRule } from './parse'
import type { Condition } from './kinds'
import type { Rule } from './rule'
import { tidyRule } from './tidy'
import { writeRule } from './write'

const parsed = (text: string): Rule => {
  const answer = parseRule(text, catalog)
  if (!answer.ok) throw new Error(`${answer.message} at ${answer.at} in: ${text}`)
  return answer.rule
}
const any = { which: 'any' } as const
const once = { is: 'at-least', n: 1 } as const
const list = [...catalog.lists][0]!
const tag = [...catalog.tags][0]!
const mailing = [...catalog.mailings][0]!

test.each<[string, Condition]>([
  ['joined in the last 30 days', { kind: 'joined', when: { is: 'last-days', days: 30 } }],
  ['joined in the last 1 day', { kind: 'joined', when: { is: 'last-days', days: 1 } }],
  ['joined before 31 January 2026', { kind: 'joined', when: { is: 'before', day: '2026-01-31' } }],
  ['joined before 2026-01-31', { kind: 'joined', when: { is: 'before', day: '2026-01-31' } }],
  [`tagged "${tag[1]}"`, { kind: 'tagged', tagId: tag[0] }],
  [`tagged #${tag[0]}`, { kind: 'tagged', tagId: tag[0] }],
  [
    `on list "${list[1]}" by "form"`,
    { kind: 'on-list', listId: list[0], state: 'subscribed', since: null, way: 'form' },
  ],
  [
    `left list "${list[1]}" in the last 7 days`,
    {
      kind: 'on-list',
      listId: list[0],
      state: 'unsubscribed',
      since: { is: 'last-days', days: 7 },
      way: null,
    },
  ],
  [
    `pending on list "${list[1]}"`,
    { kind: 'on-list', listId: list[0], state: 'pending', since: null, way: null },
  ],
  [
    'domain is "inkpost.example"',
    { kind: 'address', part: 'domain', test: { is: 'equal', text: 'inkpost.example' } },
  ],
  [
    'address starts with "info@"',
    { kind: 'address', part: 'whole', test: { is: 'starts', text: 'info@' } },
  ],
  ['opened any mailing', { kind: 'mail', did: 'opened', of: any, times: once, withinDays: null }],
  [
    'clicked any mailing at least 3 times in the last 90 days',
    { kind: 'mail', did: 'clicked', of: any, times: { is: 'at-least', n: 3 }, withinDays: 90 },
  ],
  [
    'opened the last 5 mailings at most 0 times',
    {
      kind: 'mail',
      did: 'opened',
      of: { which: 'last', n: 5 },
      times: { is: 'at-most', n: 0 },
      withinDays: null,
    },
  ],
  [
    `clicked link 2 of mailing "${mailing[1]}"`,
    {
      kind: 'mail',
      did: 'clicked',
      of: { which: 'mailing', id: mailing[0], link: 2 },
      times: once,
      withinDays: null,
    },
  ],
  [
    'bought over 1 times in category "stunt" in the last 60 days',
    {
      kind: 'orders',
      what: 'count',
      test: { is: 'number', than: 'over', number: 1 },
      product: null,
      category: 'stunt',
      withinDays: 60,
    },
  ],
  [
    'spent between 10 and 50.5',
    {
      kind: 'orders',
      what: 'money',
      test: { is: 'between', from: 1_000, to: 5_050 },
      product: null,
      category: null,
      withinDays: null,
    },
  ],
  [
    'last bought after 2026-06-01',
    { kind: 'ordered', which: 'last', when: { is: 'after', day: '2026-06-01' } },
  ],
  [
    'did "page view" exactly 2 times where "page" contains "kite"',
    {
      kind: 'event',
      name: 'page view',
      times: { is: 'exactly', n: 2 },
      withinDays: null,
      where: { property: 'page', test: { is: 'contains', text: 'kite' } },
    },
  ],
  ['tier is warm, keen', { kind: 'tier', of: ['warm', 'keen'] }],
])('%s', (text, condition) => {
  expect(parsed(text)).toEqual(condition)
  const loud = text.replace(/"[^"]*"|[a-z]+/g, (piece) =>
    piece.startsWith('"') ? piece : piece.toUpperCase(),
  )
  expect(parsed(loud)).toEqual(condition)
})

const orders = (test: object, more: object = {}) => ({
  kind: 'orders',
  what: 'count',
  test,
  product: null,
  category: null,
  withinDays: null,
  ...more,
})
const opened = (more: object) => ({
  kind: 'mail',
  did: 'opened',
  of: any,
  times: once,
  withinDays: null,
  ...more,
})
const number = (than: string, n: number) => ({ is: 'number', than, number: n })
const last5 = { which: 'last', n: 5 }

test.each<[string, object]>([
  ['bought at least 2 times', orders(number('at-least', 2))],
  ['bought at most 3 times', orders(number('at-most', 3))],
  ['bought more than 2 times', orders(number('over', 2))],
  ['bought twice', orders(number('equal', 2))],
  ['bought in the last 4 weeks', orders(number('at-least', 1), { withinDays: 28 })],
  ['bought on product "Delta 7"', orders(number('at-least', 1), { product: 'Delta 7' })],
  ['never bought', orders(number('equal', 0))],
  [
    'never bought in category "stunt" in the last 2 years',
    orders(number('equal', 0), { category: 'stunt', withinDays: 730 }),
  ],
  ['spent over 1,000', orders(number('over', 100_000), { what: 'money' })],
  ['spent at least 1,234.50', orders(number('at-least', 123_450), { what: 'money' })],
  ['never opened any mailing', opened({ times: { is: 'at-most', n: 0 } })],
  ['opened the last 5 mailings', opened({ of: last5 })],
  [
    'opened at least 2 of the last 5 mailings',
    opened({ of: last5, times: { is: 'at-least', n: 2 } }),
  ],
  ['opened all of the last 5 mailings', opened({ of: last5, times: { is: 'at-least', n: 5 } })],
  ['opened none of the last 5 mailings', opened({ of: last5, times: { is: 'at-most', n: 0 } })],
  [
    'opened none of the last 5 mailings or was sent none',
    opened({ of: last5, times: { is: 'at-most', n: 0 }, orUnsent: true }),
  ],
  ['opened all of the last mailing', opened({ of: { which: 'last', n: 1 } })],
  [
    'opened any mailing twice in the last month',
    opened({ times: { is: 'exactly', n: 2 }, withinDays: 30 }),
  ],
  [
    'joined from 1 Jan 2026 to 31 Jan 2026',
    { kind: 'joined', when: { is: 'from-to', from: '2026-01-01', to: '2026-01-31' } },
  ],
  [
    'joined between 2026-01-01 and 2026-01-31',
    { kind: 'joined', when: { is: 'from-to', from: '2026-01-01', to: '2026-01-31' } },
  ],
  ['Town is orrin', { kind: 'field', key: 'town', test: { is: 'equal', text: 'orrin' } }],
  ['Town is Hale Point', { kind: 'field', key: 'town', test: { is: 'equal', text: 'Hale Point' } }],
  ['Town is not orrin', { kind: 'field', key: 'town', test: { is: 'not-equal', text: 'orrin' } }],
  ['Town is not empty', { kind: 'field', key: 'town', test: { is: 'known' } }],
  [
    'Town is one of Orrin, Hale Point',
    { kind: 'field', key: 'town', test: { is: 'one-of', texts: ['Orrin', 'Hale Point'] } },
  ],
  ['First name is "Ann"', { kind: 'field', key: 'first_name', test: { is: 'equal', text: 'Ann' } }],
  [
    '"Height (m) is" is at least 1,500',
    { kind: 'field', key: 'height', test: number('at-least', 1_500) },
  ],
])('%s, as people write it', (text, condition) => {
  expect(parsed(text)).toEqual(condition)
  expect(parsed(writeRule(parsed(text), catalog))).toEqual(condition)
})

test('a field may begin as a condition does, where a comparison stands behind its name', () => {
  const fields = new Map([
    ...catalog.fields,
    ['first_kite', { name: 'First kite', kind: 'text' as const }] as const,
    ['left', { name: 'Left', kind: 'yesno' as const }] as const,
  ])
  const read = (text: string) => parseRule(text, { ...catalog, fields })
  expect(read('First kite is empty')).toEqual({
    ok: true,
    rule: { kind: 'field', key: 'first_kite', test: { is: 'empty' } },
  })
  expect(read('Left is yes')).toMatchObject({ ok: true, rule: { key: 'left' } })
  expect(read('tier is keen')).toMatchObject({ ok: true, rule: { kind: 'tier' } })
  expect(read('"Tier" is keen')).toMatchObject({ ok: true, rule: { kind: 'field', key: 'level' } })
  expect(read('first bought in the last 60 days')).toMatchObject({
    ok: true,
    rule: { kind: 'ordered' },
  })
})

test('words without quotes end at “and” and “or”', () => {
  expect(parsed('Town is Hale Point and tier is keen')).toMatchObject({
    kind: 'all',
    of: [{ test: { text: 'Hale Point' } }, { kind: 'tier' }],
  })
})

test.each([
  ['never tier is keen', 'tier'],
  ['never bought twice', 'bought'],
  ['opened all of the last mailings', 'mailings'],
  ['bought in the last 4 moons', 'moons'],
  ['joined from 1 Jan 2026 until', 'until'],
])('the fault in “%s” is pointed at “%s”', (text, word) => {
  const answer = parseRule(text, catalog)
  if (answer.ok) throw new Error('It was read.')
  expect(text.slice(answer.at, answer.at + answer.length)).toBe(word)
})

test('texts in one line keep the commas that are in quotes', () => {
  expect(readTexts('Orrin, "Hale, Point" ,  Stannow,')).toEqual(['Orrin', 'Hale, Point', 'Stannow'])
  const text = fc.stringMatching(/^[a-z",][a-z", ]{0,6}[a-z",]$/)
  fc.assert(
    fc.property(fc.array(text, { minLength: 1, maxLength: 5 }), (texts) => {
      expect(readTexts(showTexts(texts))).toEqual(texts)
    }),
  )
})

test('“and” binds closer than “or”; parentheses and “not” group', () => {
  const one = 'tier is keen'
  const two = 'tier is cool'
  const three = 'tier is warm'
  const [a, b, c] = [parsed(one), parsed(two), parsed(three)]
  expect(parsed(`${one} or ${two} and ${three}`)).toEqual({
    kind: 'any',
    of: [a, { kind: 'all', of: [b, c] }],
  })
  expect(parsed(`(${one} or ${two}) and ${three}`)).toEqual({
    kind: 'all',
    of: [{ kind: 'any', of: [a, b] }, c],
  })
  expect(parsed(`not ${one}`)).toEqual({ kind: 'none', of: [a] })
  expect(parsed(`neither ${one} nor ${two}`)).toEqual({ kind: 'none', of: [a, b] })
  expect(parsed('everyone')).toEqual({ kind: 'all', of: [] })
  expect(parsed('nobody')).toEqual({ kind: 'any', of: [] })
})

test.each<[string, string, string]>([
  ['', '', 'Write a rule'],
  ['joined', '', 'A time is needed here'],
  ['joined lately', 'lately', 'A time is needed here'],
  ['joined in the last 0 days', '0', 'A whole number from 1'],
  ['joined in the last 2.5 days', '2.5', 'A whole number from 1'],
  ['joined before 2026-02-30', '2026-02-30', 'A day is needed here'],
  ['tagged kite', 'kite', 'The name of a tag is needed'],
  ['tagged "no such tag"', '"no such tag"', 'There is no tag “no such tag”'],
  ['in segment "none"', '"none"', 'There is no segment'],
  ['tier is eager', 'eager', 'A tier is needed here: silent, cool, warm, keen'],
  ['opened mailing', '', 'The name of a mailing is needed'],
  ['opened any letter', 'letter', '“mailing” is missing here'],
  ['spent over many', 'many', 'A number is needed here'],
  ['tier is keen tier is cool', 'tier', '“and” or “or” may be missing'],
  ['tier is keen and', '', 'Something is missing at the end'],
  ['(tier is keen', '', '“)” is missing here'],
  ['tier is keen)', ')', 'can’t follow here'],
  ['quiet since spring', 'quiet', 'Nothing is known by “quiet”'],
  ['domain is 5', 'is', 'An address is compared as text'],
  ['tagged "half', '"half', 'This quotation has no end'],
  ['joined ; now', ';', 'has no meaning here'],
  ['did "page view" where "a/b" is "x"', '"a/b"', 'A property has letters'],
  ['"No such field" is "x"', '"No such field"', 'There is no field'],
])('%s: the fault points at “%s”', (text, at, message) => {
  const answer = parseRule(text, catalog)
  expect(answer.ok).toBe(false)
  if (answer.ok) return
  expect(answer.message).toContain(message)
  const start = at === '' ? text.length : text.lastIndexOf(at)
  expect([answer.at, text.slice(answer.at, answer.at + answer.length)]).toEqual([start, at])
})

test('a rule may be nested deep, not endlessly', () => {
  const nested = (depth: number) => `${'('.repeat(depth)}tier is keen${')'.repeat(depth)}`
  expect(parseRule(nested(40), catalog).ok).toBe(true)
  expect(parseRule(nested(400), catalog)).toMatchObject({
    ok: false,
    message: 'This rule is nested too deep.',
  })
  expect(parseRule('tier is keen and '.repeat(3_000), catalog)).toMatchObject({ ok: false })
})

test('every rule is written so that it is read again, in any case and spacing', () => {
  fc.assert(
    fc.property(rule, (made) => {
      const tidy = tidyRule(made)
      const text = writeRule(tidy, catalog)
      expect(parsed(text)).toEqual(tidy)
      const spaced = text.replace(/"(?:[^"\\]|\\.)*"| /gs, (piece) =>
        piece === ' ' ? '  \n' : piece,
      )
      expect(parsed(spaced)).toEqual(tidy)
    }),
  )
})

test('no text whatever breaks the reader', () => {
  const words = fc.constantFrom(
    'joined',
    'in',
    'the',
    'last',
    '30',
    'days',
    'and',
    'or',
    'not',
    '(',
    ')',
    '"x"',
    'on',
    'list',
    'opened',
    'any',
    'mailing',
    'spent',
    'over',
    'between',
    '#1',
    ',',
    'where',
    'tier',
    'is',
    '“',
  )
  fc.assert(
    fc.property(
      fc.oneof(
        fc.string({ unit: 'binary', maxLength: 200 }),
        fc.array(words, { maxLength: 30 }).map((list) => list.join(' ')),
      ),
      (text) => {
        const answer = parseRule(text, catalog)
        if (answer.ok) return
        expect(answer.message).toMatch(/[.?]$/)
        expect(answer.at).toBeGreaterThanOrEqual(0)
        expect(answer.at + answer.length).toBeLessThanOrEqual(text.length + 1)
      },
    ),
    { numRuns: 2_000 },
  )
})
