import fc from 'fast-check'
import { expect, test } from 'vitest'
import { shareOut, type Claimant } from './shares'

const claimant = fc.record({
  goesFirst: fc.boolean(),
  served: fc.nat(5),
  able: fc.nat(12),
})

test('no more is given than there is, nor to anybody more than they can take; nothing lies idle', () => {
  fc.assert(
    fc.property(fc.array(claimant, { maxLength: 8 }), fc.nat(20), (some, free) => {
      const all = some.map((one, id) => ({ ...one, id }))
      const shares = shareOut(all, free)
      const given = [...shares.values()].reduce((a, b) => a + b, 0)
      expect(given).toBe(
        Math.min(
          free,
          all.reduce((sum, { able }) => sum + able, 0),
        ),
      )
      for (const { id, able } of all) expect(shares.get(id) ?? 0).toBeLessThanOrEqual(able)
    }),
  )
})

test('with k mailings due each claims within k turns, however few conversations are free', () => {
  fc.assert(
    fc.property(
      fc.array(fc.boolean(), { minLength: 1, maxLength: 7 }),
      fc.array(fc.integer({ min: 1, max: 12 }), { minLength: 30, maxLength: 30 }),
      (firsts, frees) => {
        const all: Claimant[] = firsts.map((goesFirst, id) => ({
          id,
          goesFirst,
          served: 0,
          able: 100,
        }))
        const last = all.map(() => 0)
        frees.forEach((free, i) => {
          const turn = i + 1
          for (const id of shareOut(all, free).keys()) {
            all[id]!.served = turn
            last[id] = turn
          }
          for (const at of last) expect(turn - at).toBeLessThan(all.length)
        })
      },
    ),
  )
})

test('mail that answers what somebody did takes what is left first', () => {
  const of = (id: number, goesFirst: boolean) => ({ id, goesFirst, served: 0, able: 50 })
  expect(shareOut([of(1, false), of(2, true)], 10)).toEqual(
    new Map([
      [2, 9],
      [1, 1],
    ]),
  )
  expect(shareOut([of(1, false), of(3, false)], 10)).toEqual(
    new Map([
      [1, 5],
      [3, 5],
    ]),
  )
})
