import { expect, test } from 'vitest'
import { advance, allTo, emptyMap, insertStep, judge, readMap, readShares, type NewStep } from '.'

const rate = (hits: number, of: number) => ({ kind: 'rate' as const, hits, of })
const split: NewStep = { kind: 'split', ways: [{ share: 500, next: null }] }

test('the better way takes everybody once it is clear, and not before', () => {
  expect(judge([rate(100, 1_000), rate(150, 1_000)], 'self').shares).toEqual([0, 1_000])
  expect(judge([rate(100, 1_000), rate(104, 1_000)], 'self').shares).toBeNull()
  // However clear: so few are no evidence.
  expect(judge([rate(0, 99), rate(90, 99)], 'self').shares).toBeNull()
  expect(judge([rate(100, 1_000), rate(150, 1_000)], 'hand').shares).toBeNull()
})

test('shares that follow the evidence go to the better way, and leave each a tenth', () => {
  const clear = judge([rate(100, 1_000), rate(150, 1_000), rate(90, 1_000)], 'adaptive').shares!
  expect(clear.reduce((sum, share) => sum + share, 0)).toBe(1_000)
  expect(clear[1]).toBeGreaterThan(780)
  expect(Math.min(...clear)).toBeGreaterThanOrEqual(100)
  const [one, other] = judge([rate(100, 1_000), rate(100, 1_000)], 'adaptive').shares!
  expect(Math.abs(one! - other!)).toBeLessThan(20)
})

test('money is judged by what each brought, those who bought nothing among them', () => {
  const money = (sum: number, each: number, of = 1_000) => ({
    ...{ kind: 'mean' as const, of, sum, squares: sum * each },
  })
  expect(judge([money(400_000, 4_000), money(800_000, 4_000)], 'self').shares).toEqual([0, 1_000])
})

test('who comes by goes by the shares that the split has come to; by the map’s, where they do not fit it', () => {
  const map = insertStep(emptyMap, null, 'split', split)
  const at = (shares: number[] | null, lot: number) =>
    advance(
      map,
      { step: 'split', due: 0, arrived: 0, visit: 0 },
      {
        ...{ subscribed: true, suppressed: false, pausedUntil: null, zone: 'UTC' },
        ...{
          holds: () => false,
          fieldOf: () => null,
          bestHour: () => 0,
          lot: () => lot,
          sharesOf: () => shares,
        },
      },
      0,
    ).passed!.way
  expect([at(null, 0.4), at(null, 0.6)]).toEqual([1, 0])
  expect([at(allTo(0, 2), 0.4), at(allTo(1, 2), 0.6)]).toEqual([0, 1])
  expect([at([900, 100], 0.05), at([900, 100], 0.4)]).toEqual([1, 0])
  expect(at([300, 300, 400], 0.4)).toBe(1)
  expect(readShares('[900,100]', 2)).toEqual([900, 100])
  expect(readShares('[900,200]', 2)).toBeNull()
  expect(readShares('[1000]', 2)).toBeNull()
})

test('how a split is judged is read back, and nothing else', () => {
  const map = (judged: unknown) =>
    readMap(
      JSON.parse(JSON.stringify(insertStep(emptyMap, null, 'a', { ...split, judged } as NewStep))),
    )
  const judged = { by: 'goal', days: 7, how: 'self' }
  expect(map(judged)?.steps.a).toMatchObject({ judged })
  for (const wrong of [{ ...judged, by: 'luck' }, { ...judged, days: 0 }, { ...judged, how: 1 }, 7])
    expect(map(wrong)).toBeNull()
})
