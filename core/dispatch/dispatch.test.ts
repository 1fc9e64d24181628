import fc from 'fast-check'
import { expect, test } from 'vitest'
import { tiers } from '../standing'
import {
  bestHour,
  readingHour,
  MOST_VARIANTS,
  noVariant,
  partsOf,
  plainPlan,
  planProblems,
  readPlan,
  usualLimits,
  variantName,
  type TestPlan,
} from '.'

const tried = (change: Partial<TestPlan>): TestPlan => ({
  of: 'subject',
  variants: [noVariant, { ...noVariant, subject: 'Other' }],
  share: 0.3,
  measure: 'open',
  hours: 4,
  decides: 'itself',
  ...change,
})
const problems = (test: TestPlan | null, more = {}) => planProblems({ ...plainPlan, ...more, test })

test('whatever comes from outside becomes a plan, and a plan that was read is read the same again', () => {
  fc.assert(
    fc.property(fc.jsonValue(), (json) => {
      const plan = readPlan(json)
      expect(readPlan(JSON.parse(JSON.stringify(plan)))).toEqual(plan)
    }),
  )
  const shapes = fc.record(
    {
      pace: fc.oneof(fc.constantFrom('at-once', 'widening', 'never'), fc.integer()),
      perMinute: fc.oneof(fc.double(), fc.string()),
      watchMinutes: fc.double(),
      holdout: fc.double(),
      goal: fc.record({ is: fc.string(), what: fc.string(), days: fc.double() }),
      test: fc.record({
        of: fc.constantFrom('subject', 'hour', 'x'),
        share: fc.double(),
        hours: fc.double(),
        variants: fc.array(fc.record({ subject: fc.string(), hour: fc.double() })),
      }),
    },
    { requiredKeys: [] },
  )
  fc.assert(
    fc.property(shapes, (json) => {
      const plan = readPlan(json)
      expect(readPlan(JSON.parse(JSON.stringify(plan)))).toEqual(plan)
      expect(plan.holdout).toBeGreaterThanOrEqual(0)
      expect(plan.holdout).toBeLessThanOrEqual(0.5)
      if (!plan.test) return
      expect(plan.test.variants.length).toBeGreaterThanOrEqual(2)
      expect(plan.test.variants.length).toBeLessThanOrEqual(MOST_VARIANTS)
      for (const { subject } of plan.test.variants) expect(subject).not.toMatch(/[\r\n]/)
    }),
  )
})

test('what a plan lacks is said in sentences', () => {
  expect(problems(null)).toEqual([])
  expect(problems(tried({}))).toEqual([])
  expect(problems(tried({ variants: [noVariant, noVariant, noVariant] }))).toEqual([
    'Variant B, C has no subject yet.',
  ])
  expect(problems(tried({ of: 'sender' }))).toEqual(['Variant B has no sender’s name yet.'])
  expect(problems(tried({ of: 'letter' }))).toEqual(['Variant B has no letter yet.'])
  const same = { ...noVariant, subject: 'Other' }
  expect(problems(tried({ variants: [noVariant, same, same] }))).toEqual([
    'Two variants are the same.',
  ])
  const hours = [8, 8].map((hour) => ({ ...noVariant, hour }))
  expect(problems(tried({ of: 'hour', variants: hours }))).toEqual(['Two variants are the same.'])
  expect(problems(tried({ measure: 'goal' }))).toHaveLength(1)
  expect(problems(null, { goal: { is: 'link', what: 'nowhere', days: 1 } })).toHaveLength(1)
  expect(problems(null, { goal: { is: 'event', what: '', days: 1 } })).toHaveLength(1)
})

test('parts come in their order: the test first, the keenest before the others, everybody in one', () => {
  expect(partsOf(plainPlan)).toEqual(['everybody'])
  expect(partsOf({ ...plainPlan, test: tried({}) })).toEqual(['test', 'rest'])
  expect(partsOf({ ...plainPlan, test: tried({ share: 1 }) })).toEqual(['test'])
  const widening = partsOf({ ...plainPlan, pace: 'widening', test: tried({}) })
  expect(widening[0]).toBe('test')
  expect(widening.slice(1)).toEqual(tiers.toReversed().map((tier) => `tier ${tier}`))
})

test('a test and a time on each reader’s clock go together only where all are in the test', () => {
  const local = { ...plainPlan, pace: 'local-time' as const, zoneField: 'zone' }
  expect(planProblems({ ...local, test: tried({ share: 0.3 }) })[0]).toMatch(/Test on everybody/)
  expect(planProblems({ ...local, test: tried({ share: 1 }) })).toEqual([])
  const hours = tried({
    share: 1,
    of: 'hour',
    variants: [
      { ...noVariant, hour: 8 },
      { ...noVariant, hour: 18 },
    ],
  })
  expect(planProblems({ ...local, test: hours })[0]).toMatch(/Choose one of the two/)
})

test('limits from outside are shares within reason', () => {
  expect(readPlan({ limits: { bounced: 9, complained: 'x', deferred: 0 } }).limits).toEqual({
    bounced: 0.5,
    complained: usualLimits.complained,
    deferred: 0.01,
  })
})

test('the best hour is one’s own, where there is enough of it, else everybody’s', () => {
  const at = (hours: Record<number, number>) => Array.from({ length: 24 }, (_, h) => hours[h] ?? 0)
  const everybody = at({ 8: 30, 19: 70 })
  expect(bestHour(at({}), everybody)).toBe(19)
  expect(bestHour(at({ 3: 1 }), everybody)).toBe(19)
  expect(bestHour(at({ 3: 9 }), everybody)).toBe(3)
  expect(bestHour(at({}), at({}))).toBe(0)
  fc.assert(
    fc.property(fc.array(fc.nat(40), { minLength: 24, maxLength: 24 }), (own) => {
      const hour = bestHour(own, everybody)
      expect(own[hour]! + 5).toBeGreaterThanOrEqual(Math.max(...own))
    }),
  )
})

test('variants are called by letters', () => expect([0, 4].map(variantName)).toEqual(['A', 'E']))

test('when somebody reads is by a zone’s clock, and everybody’s hour where they have not read', () => {
  const nine = Date.UTC(2026, 0, 5, 9)
  const everybody = [
    { at: nine, opens: 12 },
    { at: nine + 10 * 3_600_000, opens: 3 },
  ]
  expect(readingHour([], everybody, 'UTC')).toBe(9)
  expect(readingHour([], everybody, 'Asia/Tokyo')).toBe(18)
  const own = [20, 44, 68, 92, 116].map((hours) => nine + (hours - 9) * 3_600_000)
  expect(readingHour(own, everybody, 'UTC')).toBe(20)
  expect(readingHour(own.slice(0, 1), everybody, 'UTC')).toBe(9)
  expect(readingHour([], [], 'UTC')).toBe(0)
})
