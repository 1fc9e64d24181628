import fc from 'fast-check'
import { expect, test } from 'vitest'
import { DAY } from '../time'
import {
  engagement,
  HALF_LIFE_DAYS,
  keennessOf,
  tierFrom,
  tierOf,
  tiers,
  weights,
  withAct,
  type EngagedAct,
  type Keenness,
} from './engagement'

const now = Date.UTC(2026, 10, 23, 9, 40)
const act = fc.constantFrom<EngagedAct>('open', 'click', 'order')
const acts = fc.array(fc.tuple(act, fc.integer({ min: 0, max: 700 * DAY })), { maxLength: 30 })
const keennessAfter = (done: [EngagedAct, number][]): Keenness =>
  done.reduce<Keenness>((keenness, [kind, ago]) => withAct(keenness, kind, now - ago), null)

test('nobody who never did anything is engaged', () => {
  expect(engagement(null, now)).toBe(0)
  expect(tierOf(null, now)).toBe('silent')
})

test.each([
  ['open', 1],
  ['click', 2],
  ['order', 4],
] as const)('one %s is worth %d at once, half of it after 45 days', (kind, worth) => {
  const keenness = withAct(null, kind, now)
  expect(engagement(keenness, now)).toBeCloseTo(worth, 9)
  expect(engagement(keenness, now + HALF_LIFE_DAYS * DAY)).toBeCloseTo(worth / 2, 9)
})

test('it is the sum of weight · 2^(−age / 45 days) over all acts', () => {
  fc.assert(
    fc.property(acts, (done) => {
      const sum = done.reduce(
        (total, [kind, ago]) => total + weights[kind] * 2 ** (-ago / (HALF_LIFE_DAYS * DAY)),
        0,
      )
      const found = engagement(keennessAfter(done), now)
      expect(Math.abs(found - sum)).toBeLessThanOrEqual(1e-9 * Math.max(1, sum))
    }),
  )
})

test('the order in which acts are told does not matter', () => {
  fc.assert(
    fc.property(
      acts.chain((done) =>
        fc.tuple(
          fc.constant(done),
          fc.shuffledSubarray(done, { minLength: done.length, maxLength: done.length }),
        ),
      ),
      ([done, shuffled]) => {
        expect(engagement(keennessAfter(shuffled), now)).toBeCloseTo(
          engagement(keennessAfter(done), now),
          9,
        )
      },
    ),
  )
})

test('a further act never takes anybody down a tier; time alone never takes anybody up', () => {
  fc.assert(
    fc.property(acts, act, fc.integer({ min: 0, max: 400 * DAY }), (done, kind, later) => {
      const before = keennessAfter(done)
      const rank = (keenness: Keenness, at: number) => tiers.indexOf(tierOf(keenness, at))
      expect(rank(withAct(before, kind, now), now)).toBeGreaterThanOrEqual(rank(before, now))
      expect(rank(before, now + later)).toBeLessThanOrEqual(rank(before, now))
    }),
  )
})

test('tiers begin where they say', () => {
  for (const tier of tiers) {
    const from = keennessOf(tier, now)
    if (from === null) {
      expect(tierFrom[tier]).toBe(0)
      continue
    }
    expect(tierOf(from, now)).toBe(tier)
    expect(engagement(from, now)).toBeCloseTo(tierFrom[tier], 6)
    expect(tierOf(from - 1e-6, now)).toBe(tiers[tiers.indexOf(tier) - 1])
  }
})

test('who opens a weekly letter every time is keen, who opens one in two months is not warm', () => {
  const weekly = keennessAfter(Array.from({ length: 52 }, (_, week) => ['open', week * 7 * DAY]))
  expect(tierOf(weekly, now)).toBe('keen')
  expect(engagement(weekly, now)).toBeGreaterThan(8)
  const rarely = keennessAfter(Array.from({ length: 6 }, (_, i) => ['open', i * 60 * DAY]))
  expect(tierOf(rarely, now)).toBe('cool')
})
