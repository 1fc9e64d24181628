import { expect, test } from 'vitest'
import { byNumberAsked, costsOf, type AskedVersion } from './asking'

const versions: AskedVersion[] = [
  { signUpId: 1, fields: [], seen: 1_000, confirmed: 150 },
  { signUpId: 1, fields: ['first_name'], seen: 1_000, confirmed: 120 },
  { signUpId: 1, fields: ['first_name', 'town', 'birthday', 'height'], seen: 400, confirmed: 12 },
  { signUpId: 2, fields: ['first_name'], seen: 500, confirmed: 90 },
  { signUpId: 2, fields: ['town'], seen: 0, confirmed: 3 },
]

test('over all forms: who asks for more is answered by fewer, each with its interval', () => {
  const rows = byNumberAsked(versions)
  expect(rows.map(({ asked, seen, confirmed }) => [asked, seen, confirmed])).toEqual([
    [0, 1_000, 150],
    [1, 1_500, 213],
    [3, 400, 12],
  ])
  for (const { rate, seen, confirmed } of rows) {
    expect(rate.rate).toBeCloseTo(confirmed / seen)
    expect(rate.low).toBeLessThan(rate.rate)
    expect(rate.high).toBeGreaterThan(rate.rate)
  }
})

test('what a field cost is told where there are versions with it and without', () => {
  const costs = costsOf(versions, 1)
  expect(costs.map(({ field }) => field)).toEqual(['first_name', 'town', 'birthday', 'height'])
  const [name, town] = costs
  expect(name!.cost.difference).toBeCloseTo(150 / 1_000 - 132 / 1_400)
  expect(town!.cost.difference).toBeCloseTo(270 / 2_000 - 12 / 400)
  expect(town!.cost.low).toBeGreaterThan(0)
  // Nobody saw the version of the other form that does not ask for the name.
  expect(costsOf(versions, 2)).toEqual([])
})
