import fc from 'fast-check'
import { expect, test } from 'vitest'
import {
  ENOUGH,
  studentQuantile,
  subjectEffects,
  subjectLength,
  subjectTraits,
} from './subject-effects'

test.each([
  [4, 2.776],
  [5, 2.571],
  [10, 2.228],
  [30, 2.042],
  [1_000, 1.962],
])('with %d degrees of freedom the quantile is %d', (freedom, quantile) =>
  expect(Math.abs(studentQuantile(freedom) - quantile)).toBeLessThan(0.02),
)

const mailings = (n: number, subject: string, opened: (i: number) => number) =>
  Array.from({ length: n }, (_, i) => ({ subject, opened: opened(i) }))
const effectOf = (trait: string, sent: Parameters<typeof subjectEffects>[0]) =>
  subjectEffects(sent).find((one) => one.trait === trait)

test('too few mailings on either side say nothing', () => {
  const few = [
    ...mailings(ENOUGH - 1, 'Force 5', () => 0.5),
    ...mailings(40, 'The wind', () => 0.3),
  ]
  expect(effectOf('number', few)).toBeUndefined()
  expect(subjectEffects([])).toEqual([])
})

test('a difference is found with its interval, the way round that it is', () => {
  const noise = (i: number) => ((i * 7) % 5) / 100
  const sent = [
    ...mailings(12, 'Force 5', (i) => 0.4 + noise(i)),
    ...mailings(30, 'The wind', (i) => 0.35 + noise(i)),
  ]
  const found = effectOf('number', sent)!
  expect(found).toMatchObject({ withIt: 12, without: 30, name: 'a number' })
  expect(found.effect).toBeCloseTo(0.05, 2)
  expect(found.low).toBeGreaterThan(0)
  expect(found.high).toBeLessThan(0.08)
  const turned = effectOf(
    'number',
    sent.map(({ subject, opened }) => ({ subject, opened: 1 - opened })),
  )!
  expect(turned.effect).toBeCloseTo(-found.effect, 9)
  expect(turned.high).toBeCloseTo(-found.low, 9)
})

test('the interval holds the effect, and more mailings make it narrower', () => {
  fc.assert(
    fc.property(
      fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: ENOUGH, maxLength: 30 }),
      fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: ENOUGH, maxLength: 30 }),
      (a, b) => {
        const sent = (times: number) => [
          ...a.flatMap((opened) => mailings(times, 'Force 5', () => opened)),
          ...b.flatMap((opened) => mailings(times, 'The wind', () => opened)),
        ]
        const [once, often] = [effectOf('number', sent(1))!, effectOf('number', sent(4))!]
        expect(once.low).toBeLessThanOrEqual(once.effect)
        expect(once.high).toBeGreaterThanOrEqual(once.effect)
        expect(often.effect).toBeCloseTo(once.effect, 9)
        expect(often.high - often.low).toBeLessThanOrEqual(once.high - once.low + 1e-9)
      },
    ),
  )
})

test('shares that hardly differ still have an interval', () => {
  const sent = [
    ...mailings(8, 'Force 5', () => 0),
    ...mailings(7, 'The wind', () => 0),
    ...mailings(1, 'The wind', () => 1.257382227762103e-161),
  ]
  const { effect, low, high } = effectOf('number', sent)!
  expect(low).toBeLessThanOrEqual(effect)
  expect(high).toBeGreaterThanOrEqual(effect)
})

test.each([
  ['Force 5 till Sunday', ['number', 'short']],
  ['Shall we go on?', ['question', 'short']],
  ['For {{ person.f1 | default: "you" }} the wind is back, and it stays all week', ['fill-in']],
  ['🪁 Kites', ['emoji', 'short']],
])('%j has the traits %j', (subject, traits) =>
  expect(subjectTraits.filter(({ has }) => has(subject)).map(({ key }) => key)).toEqual(traits),
)

test('letters are counted as one reads them', () => {
  expect(subjectLength('Zoë 👩‍🔧')).toBe(5)
  expect(subjectLength('For {{ person.first_name }}')).toBe(10)
})
