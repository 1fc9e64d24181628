import { expect, test } from 'vitest'
import { catalog } from '../segments/arbitrary'
import type { Rule } from '../segments'
import { richText } from '../letters/rich-text'
import { mapOfTemplate, sequenceTemplates } from './templates'
import { readMap, type SequenceMap } from './map'
import { readSequenceFile, sequenceFile, type NamedLetter, type ReadFile } from '.'

const tagged: Rule = { kind: 'tagged', tagId: 1 }
const letter: NamedLetter = {
  ...{ name: 'Hello', subject: 'Hello, {first name}', previewText: 'Up' },
  document: {
    version: 1,
    rows: [
      {
        id: 'r',
        shownTo: { rule: tagged },
        columns: [{ share: 1, blocks: [{ id: 'b', kind: 'text', text: richText('Wind') }] }],
      },
    ],
  } as NamedLetter['document'],
}
/** Something of every kind that is named by number. */
const map: SequenceMap = readMap({
  start: {
    by: [
      { is: 'joined', signUpId: 1 },
      { is: 'joined', signUpId: null },
      { is: 'tag', tagId: 3, gets: true },
      { is: 'segment', segmentId: 1, comes: true },
      { is: 'mailed', mailingId: 1, did: 'opened', within: 3_600_000 },
      { is: 'moment', from: '2026-12-01', hour: 9, rule: 'FREQ=MONTHLY;BYDAY=1MO', segmentId: 3 },
    ],
    again: { is: 'never' },
    rule: tagged,
    out: { kind: 'on-list', listId: 2, state: 'subscribed', since: null, way: null },
    already: true,
  },
  first: 'hello',
  steps: {
    hello: {
      ...{ kind: 'mail', mailingId: 40, next: 'fork' },
      versions: [{ mailingId: 41, share: 500 }],
    },
    fork: { kind: 'fork', ways: [{ when: { is: 'fits', rule: tagged }, next: 'do' }], next: 'do' },
    do: {
      kind: 'do',
      acts: [
        { is: 'start', sequenceId: 1 },
        { is: 'join', listId: 2, statement: 'They asked for it.' },
        { is: 'leave', listId: null },
        { is: 'leave', listId: 1 },
      ],
      next: 'wait',
    },
    wait: {
      ...{ kind: 'wait', ms: 60_000, until: { is: 'happens', what: { is: 'ordered' } } },
      ...{ ways: [{ next: null }], next: 'goal' },
    },
    goal: { kind: 'goal', name: '', when: { is: 'fits', rule: tagged }, out: true, next: null },
  },
})!
const other: NamedLetter = { ...letter, name: 'Hello, version B', subject: 'Wind ahead' }
const letters = new Map([
  [40, letter],
  [41, other],
])
const taken = { name: 'First breeze', listId: 1, map, letters }
const file = JSON.stringify(sequenceFile(taken, catalog))
const read = (text: string, names = catalog) => readSequenceFile(text, names) as ReadFile

test('a file says by name what the map says by number, and rules in words', () => {
  expect(JSON.parse(file)).toMatchObject({
    ...{ satchel: 'sequence', version: 1, name: 'First breeze', list: 'Wind notes' },
    start: {
      rule: 'tagged "owner"',
      by: [
        { signUpId: 'Beach "guide"' },
        { signUpId: null },
        { tagId: 'press' },
        { segmentId: 'Early' },
        { mailingId: 'Wind notes 1' },
        { segmentId: 'Both', rule: 'FREQ=MONTHLY;BYDAY=1MO' },
      ],
    },
    steps: {
      hello: {
        letter: { name: 'Hello', document: { rows: [{ shownTo: { rule: 'tagged "owner"' } }] } },
        versions: [
          {
            share: 500,
            letter: { name: 'Hello, version B', document: { rows: [{ shownTo: {} }] } },
          },
        ],
      },
      fork: { ways: [{ when: { rule: 'tagged "owner"' } }] },
      do: {
        acts: [{ sequenceId: 'Welcome' }, { listId: 'Offers "and" \\ more' }, { listId: null }, {}],
      },
    },
  })
  // Whoever reads it says for themselves whether those who fit already come in.
  expect(file).not.toMatch(/already|mailingId":4|tagId":\d/)
})

test('read in the same account it is the same map, with letters of its own', () => {
  const got = read(file)
  expect(got).toMatchObject({ name: 'First breeze', listId: 1, missing: [] })
  const { already: _, ...start } = map.start
  const hello = { ...map.steps.hello, mailingId: 1, versions: [{ mailingId: 2, share: 500 }] }
  expect(got.map).toEqual({ ...map, start, steps: { ...map.steps, hello } })
  expect(got.letters).toEqual([letter, other])
})

test('in another account things have other numbers; what is not there is left open, and holds for nobody', () => {
  const elsewhere = {
    ...catalog,
    tags: new Map([[70, 'OWNER']]),
    lists: new Map([[8, 'Wind notes']]),
  }
  const got = read(file, elsewhere)
  expect(got.listId).toBe(8)
  const { by, rule, out } = got.map.start
  expect(rule).toEqual({ kind: 'tagged', tagId: 70 })
  expect(by[2]).toMatchObject({ is: 'tag', tagId: 0 })
  expect(out).toEqual({ kind: 'any', of: [] })
  expect(got.missing).toEqual([
    'There is no tag “press” here: choose another.',
    expect.stringMatching(/^“.*Offers.*” can’t be read here, so it holds for nobody\. ./),
    'There is no list “Offers "and" \\ more” here: choose another.',
  ])
  const none = read(file, { ...catalog, signUps: new Map() })
  // No sign-up is not any sign-up.
  expect(none.map.start.by[0]).toEqual({ is: 'joined', signUpId: 0 })
})

test.each([
  ['{', /not JSON/],
  ['null', /no sequence/],
  ['{"satchel":"letter"}', /no sequence/],
  ['{"satchel":"sequence","version":2}', /newer/],
  ['{"satchel":"sequence","version":1,"steps":{"a":{"kind":"fly"}}}', /step or a way/],
  [
    '{"satchel":"sequence","version":1,"steps":{"a":{"kind":"mail","versions":7}}}',
    /step or a way/,
  ],
  [
    '{"satchel":"sequence","version":1,"steps":{"a":{"kind":"mail","versions":[{}]}}}',
    /step or a way/,
  ],
])('%s is refused with its reason', (text, why) => {
  expect(readSequenceFile(text, catalog)).toEqual({ problem: expect.stringMatching(why) })
})

test.each(sequenceTemplates.map((one) => [one.name, one] as const))(
  'the template %s goes out and in',
  (name, template) => {
    const letters = new Map<number, NamedLetter>()
    const drawn = mapOfTemplate(template, (one) => {
      letters.set(letters.size + 1, { ...one, name: one.subject })
      return letters.size
    })
    const whole = { name, listId: null, map: drawn, letters }
    const got = read(JSON.stringify(sequenceFile(whole, catalog)))
    expect(got).toMatchObject({ name, map: drawn, missing: [] })
    expect(got.letters.map(({ document }) => document)).toEqual(
      [...letters.values()].map(({ document }) => document),
    )
  },
)
