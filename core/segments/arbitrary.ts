import fc from 'fast-check'
import { tiers } from '../standing'
import { languages } from '../people/language'
import type { Condition } from './kinds'
import { mailActs } from './kinds/mail'
import { readingOn } from './kinds/reads'
import { sequenceStandings } from './kinds/sequence'
import { ways } from './kinds/source'
import { suppressedFor } from './kinds/suppressed'
import type { Catalog } from './ready'
import type { Rule } from './rule'
import type {
  Comparison,
  NumberComparison,
  TextComparison,
  TimeComparison,
} from './values/comparison'
import { rankedBy } from './values/ranking'
import { allowsNone } from './values/times'

/** Rules and what they refer to, made at random for tests. */
export const catalog: Catalog = {
  fields: new Map([
    ['first_name', { name: 'First name', kind: 'text' as const }],
    ['town', { name: 'Town', kind: 'text' as const }],
    ['left_hand', { name: 'Left hand', kind: 'yesno' as const }],
    ['flies', { name: 'Flying style', kind: 'choices' as const }],
    ['height', { name: 'Height (m) is', kind: 'number' as const }],
    ['birthday', { name: 'Birthday', kind: 'date' as const }],
    ['level', { name: 'Tier', kind: 'choice' as const }],
  ]),
  lists: new Map([
    [1, 'Wind notes'],
    [2, 'Offers "and" \\ more'],
  ]),
  tags: new Map([
    [1, 'owner'],
    [2, 'Presse'],
    [3, 'press'],
  ]),
  goneTags: new Map(),
  mailings: new Map([
    [1, 'Wind notes 1'],
    [2, 'Same name'],
    [3, 'Same name'],
  ]),
  segments: new Map([
    [1, { name: 'Early', rule: { kind: 'tagged' as const, tagId: 1 }, frozen: false }],
    [2, { name: 'Then', rule: { kind: 'all' as const, of: [] }, frozen: true }],
    [
      3,
      {
        name: 'Both',
        rule: {
          kind: 'any' as const,
          of: [
            { kind: 'segment' as const, segmentId: 1 },
            { kind: 'segment' as const, segmentId: 2 },
          ],
        },
        frozen: false,
      },
    ],
  ]),
  sequences: new Map([
    [1, 'Welcome'],
    [2, 'Same name'],
    [3, 'Same name'],
  ]),
  signUps: new Map([
    [1, 'Beach "guide"'],
    [2, 'Festival'],
    [3, 'Festival'],
  ]),
  imports: new Map([
    [1, 'festival "desk".csv'],
    [2, 'guests.csv'],
    [3, 'guests.csv'],
  ]),
  moneyDigits: 2,
  cutOf: ({ by, n }) => (by === 'engagement' ? n / 10 - 3 : by === 'money' ? n * 100 : n),
}

/** Texts that are hard: accents, cases, other scripts, signs of the languages they pass through. */
export const someText = fc.oneof(
  fc.constantFrom(
    'Orrin',
    'ORRIN',
    'Örrin',
    'orr',
    'Čapek',
    'straße',
    "O'Hallow",
    '%',
    '_',
    '*',
    '"',
    '\\',
    'Ω',
    '李',
    'stunt',
    'power',
    'é',
  ),
  fc.string({ unit: 'grapheme', minLength: 1, maxLength: 4 }).filter((text) => text.trim() !== ''),
)

export const someDay = fc.oneof(
  fc.constantFrom(
    '2024-02-29',
    '2023-02-28',
    '2024-02-28',
    '2026-11-23',
    '2026-11-22',
    '2026-11-24',
    '2000-12-31',
    '2001-01-01',
  ),
  fc
    .date({ min: new Date('1990-01-01'), max: new Date('2030-01-01'), noInvalidDate: true })
    .map((date) => date.toISOString().slice(0, 10)),
)

const someDays = fc.oneof(fc.constantFrom(1, 2, 7, 30, 365), fc.integer({ min: 1, max: 800 }))
const someNumber = fc.oneof(fc.integer({ min: -3, max: 6 }), fc.constantFrom(0.5, 1.25, 1e21))

export const textComparison: fc.Arbitrary<TextComparison> = fc.oneof(
  fc.record({
    is: fc.constantFrom(
      'equal' as const,
      'not-equal' as const,
      'contains' as const,
      'starts' as const,
      'ends' as const,
    ),
    text: someText,
  }),
  fc.record({
    is: fc.constant('one-of' as const),
    texts: fc.array(someText, { minLength: 1, maxLength: 3 }),
  }),
)

const numberComparison = (number: fc.Arbitrary<number>): fc.Arbitrary<NumberComparison> =>
  fc.oneof(
    fc.record({
      is: fc.constant('number' as const),
      than: fc.constantFrom(
        'equal' as const,
        'not-equal' as const,
        'under' as const,
        'over' as const,
        'at-least' as const,
        'at-most' as const,
      ),
      number,
    }),
    fc.record({ is: fc.constant('between' as const), from: number, to: number }),
  )

export const timeComparison: fc.Arbitrary<TimeComparison> = fc.oneof(
  fc.record({
    is: fc.constantFrom('before' as const, 'after' as const, 'on' as const),
    day: someDay,
  }),
  fc.record({ is: fc.constant('from-to' as const), from: someDay, to: someDay }),
  fc.record({ is: fc.constantFrom('last-days' as const, 'next-days' as const), days: someDays }),
)

const anyValue: fc.Arbitrary<Comparison> = fc.record({
  is: fc.constantFrom('empty' as const, 'known' as const),
})
const yesNo: fc.Arbitrary<Comparison> = fc.record({
  is: fc.constantFrom('yes' as const, 'no' as const),
})
const choices: fc.Arbitrary<Comparison> = fc.record({
  is: fc.constantFrom('includes' as const, 'includes-not' as const),
  text: someText,
})
const anniversary: fc.Arbitrary<Comparison> = fc.record({
  is: fc.constant('anniversary' as const),
  days: fc.constantFrom(0, 1, 5, 40, 366),
})

const field = (key: string, ...tests: fc.Arbitrary<Comparison>[]): fc.Arbitrary<Condition> =>
  fc.record({
    kind: fc.constant('field' as const),
    key: fc.constant(key),
    test: fc.oneof(anyValue, ...tests),
  })

const times = fc.record({
  is: fc.constantFrom('at-least' as const, 'at-most' as const, 'exactly' as const),
  n: fc.integer({ min: 0, max: 4 }),
})
const within = fc.option(someDays)

const orNull = <T>(of: fc.Arbitrary<T>): fc.Arbitrary<T | null> => fc.option(of, { nil: null })

/** Each kind of condition, at random. */
const conditions: { [Kind in Condition['kind']]: fc.Arbitrary<Condition> } = {
  field: fc.oneof(
    field('first_name', textComparison),
    field('town', textComparison),
    field('level', textComparison),
    field('left_hand', yesNo),
    field('flies', choices),
    field('height', numberComparison(someNumber)),
    field('birthday', timeComparison, anniversary),
  ),
  joined: fc.record({ kind: fc.constant('joined' as const), when: timeComparison }),
  tagged: fc.record({ kind: fc.constant('tagged' as const), tagId: fc.constantFrom(1, 2, 3) }),
  'on-list': fc.record({
    kind: fc.constant('on-list' as const),
    listId: fc.constantFrom(1, 2),
    state: fc.constantFrom('pending' as const, 'subscribed' as const, 'unsubscribed' as const),
    since: orNull(timeComparison),
    way: orNull(fc.constantFrom('import', 'form')),
  }),
  address: fc.record({
    kind: fc.constant('address' as const),
    part: fc.constantFrom('whole' as const, 'domain' as const),
    test: fc.oneof(
      textComparison,
      fc.record({
        is: fc.constant('ends' as const),
        text: fc.constantFrom('inkpost.example', 'example', '0'),
      }),
    ),
  }),
  mail: fc
    .record({
      kind: fc.constant('mail' as const),
      did: fc.constantFrom(...mailActs),
      of: fc.oneof(
        fc.constantFrom(
          { which: 'any' as const },
          { which: 'apart' as const },
          { which: 'in-sequences' as const },
        ),
        fc.record({
          which: fc.constant('mailing' as const),
          id: fc.constantFrom(1, 2, 3),
          link: orNull(fc.constantFrom(0, 1)),
        }),
        fc.record({ which: fc.constant('sequence' as const), id: fc.constantFrom(1, 2, 3) }),
        fc.record({ which: fc.constant('last' as const), n: fc.integer({ min: 1, max: 3 }) }),
      ),
      times,
      withinDays: within,
      orUnsent: fc.option(fc.constant(true as const)),
    })
    .map(({ orUnsent, ...of }): Condition =>
      orUnsent && (of.did === 'opened' || of.did === 'clicked') && allowsNone(of.times)
        ? { ...of, orUnsent }
        : of,
    ),
  orders: fc.constantFrom('count' as const, 'money' as const).chain((what) =>
    fc.record({
      kind: fc.constant('orders' as const),
      what: fc.constant(what),
      test: numberComparison(
        what === 'count' ? fc.integer({ min: 0, max: 4 }) : fc.integer({ min: 0, max: 9_000 }),
      ),
      product: orNull(fc.constantFrom('Delta 7', 'DELTA 7', 'Spar')),
      category: orNull(fc.constantFrom('stunt', 'parts')),
      withinDays: within,
    }),
  ),
  ordered: fc.record({
    kind: fc.constant('ordered' as const),
    which: fc.constantFrom('first' as const, 'last' as const),
    when: timeComparison,
  }),
  event: fc.record({
    kind: fc.constant('event' as const),
    name: fc.constantFrom('page view', 'basket'),
    times,
    withinDays: within,
    where: orNull(
      fc.record({
        property: fc.constantFrom('page', 'worth', 'new'),
        test: fc.oneof(anyValue, textComparison, yesNo, numberComparison(someNumber)),
      }),
    ),
  }),
  segment: fc.record({
    kind: fc.constant('segment' as const),
    segmentId: fc.constantFrom(1, 2, 3),
  }),
  sequence: fc.record({
    kind: fc.constant('sequence' as const),
    sequenceId: fc.constantFrom(1, 2, 3),
    is: fc.constantFrom(...sequenceStandings),
  }),
  tier: fc
    .subarray([...tiers], { minLength: 1 })
    .map((of) => ({ kind: 'tier' as const, of: tiers.filter((tier) => of.includes(tier)) })),
  rank: fc.constantFrom('people' as const, 'percent' as const).chain((unit) =>
    fc.record({
      kind: fc.constant('rank' as const),
      end: fc.constantFrom('top' as const, 'bottom' as const),
      n: fc.integer({ min: 1, max: unit === 'percent' ? 100 : 30 }),
      unit: fc.constant(unit),
      by: fc.constantFrom(...rankedBy),
    }),
  ),
  source: fc
    .record({
      kind: fc.constant('source' as const),
      from: fc.constantFrom(...ways),
      importId: orNull(fc.constantFrom(1, 2)),
    })
    .map((of) => (of.from === 'import' ? of : { ...of, importId: null })),
  suppressed: fc.record({
    kind: fc.constant('suppressed' as const),
    reason: orNull(fc.constantFrom(...suppressedFor)),
    since: orNull(timeComparison),
  }),
  'signed-up': fc.record({
    kind: fc.constant('signed-up' as const),
    signUpId: orNull(fc.constantFrom(1, 2, 3)),
    since: orNull(timeComparison),
  }),
  paused: fc.record({ kind: fc.constant('paused' as const), since: orNull(timeComparison) }),
  reads: fc.record({
    kind: fc.constant('reads' as const),
    on: fc.constantFrom(...readingOn),
    withinDays: within,
  }),
  language: fc
    .subarray([...languages], { minLength: 1 })
    .map((of) => ({ kind: 'language' as const, of: languages.filter((one) => of.includes(one)) })),
}

export const condition: fc.Arbitrary<Condition> = fc.oneof(...Object.values(conditions))

/** Nested rules of every kind of condition. */
export const rule: fc.Arbitrary<Rule> = fc.letrec<{ rule: Rule }>((again) => ({
  rule: fc.oneof(
    { depthSize: 'small' },
    condition,
    fc.record({
      kind: fc.constantFrom('all' as const, 'any' as const, 'none' as const),
      of: fc.array(again('rule'), { maxLength: 4 }),
    }),
  ),
})).rule
