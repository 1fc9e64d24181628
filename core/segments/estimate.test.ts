import fc from 'fast-check'
import { expect, test } from 'vitest'
import { DAY } from '../time'
import { estimateSizes } from './estimate'
import { madeUpFacts } from './made-up'
import type { PersonFacts } from './person-facts'
import type { ReadyRule } from './ready'

const now = Date.UTC(2026, 10, 23, 9)
const asked = { now, zone: 'Europe/Berlin' } as Parameters<typeof estimateSizes>[1]
const joined = (days: number) => madeUpFacts(now - days * DAY)
/** Who joined in the last ten days. */
const young: ReadyRule = { kind: 'joined', when: { is: 'last-days', days: 10 } } as ReadyRule

test('where everybody was drawn, the estimate is the count', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 0, max: 60 }), { minLength: 1, maxLength: 30 }),
      fc.array(fc.integer({ min: 0, max: 60 }), { minLength: 1, maxLength: 30 }),
      fc.integer({ min: 0, max: 60 }),
      (some, others, ago) => {
        const everybody = [...some, ...others]
        const counted = everybody.filter((days) => days >= ago && days - ago <= 9).length
        const [estimate] = estimateSizes(
          young,
          asked,
          [some, others].map((part) => ({ size: part.length, drawn: part.map(joined) })),
          [now - ago * DAY],
        )
        expect(estimate).toMatchObject({ low: estimate!.size, high: estimate!.size })
        // On the tenth day it is the hour that decides; a day more or less may be counted.
        const tenth = everybody.filter((days) => days - ago === 10).length
        expect(estimate!.size).toBeGreaterThanOrEqual(counted)
        expect(estimate!.size).toBeLessThanOrEqual(counted + tenth)
      },
    ),
  )
})

test('each part counts by its size, and few drawn means wide bounds', () => {
  const half = [joined(1), joined(40)]
  const none = [joined(40), joined(50)]
  const [few] = estimateSizes(
    young,
    asked,
    [
      { size: 1_000, drawn: half },
      { size: 9_000, drawn: none },
    ],
    [now],
  )
  expect(few!.size).toBe(500)
  expect(few!.low).toBe(0)
  expect(few!.high).toBeGreaterThan(3_000)
  const many = (part: PersonFacts[]) => Array.from({ length: 400 }, (_, i) => part[i % 2]!)
  const [more] = estimateSizes(
    young,
    asked,
    [
      { size: 1_000, drawn: many(half) },
      { size: 9_000, drawn: many(none) },
    ],
    [now],
  )
  expect(more!.size).toBe(500)
  expect(more!.high - more!.low).toBeLessThan((few!.high - few!.low) / 5)
})

test('a rule that refers to something gone keeps nobody at any time', () => {
  const [estimate] = estimateSizes(null, asked, [{ size: 2, drawn: [joined(1), joined(2)] }], [now])
  expect(estimate).toEqual({ at: now, size: 0, low: 0, high: 0 })
})
