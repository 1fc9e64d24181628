import fc from 'fast-check'
import { expect, test } from 'vitest'
import { DAY } from '../time'
import { fallsOn, lotFor } from './steps/by-lot'
import {
  advance,
  emptyMap,
  insertStep,
  lotOf,
  mailAhead,
  mailingsOfMap,
  readMap,
  withMailings,
  withoutVersion,
  type InsideFacts,
  type MailStep,
  type NewStep,
} from '.'

const shares = fc
  .array(fc.integer({ min: 1, max: 240 }), { minLength: 1, maxLength: 4 })
  .map((all) => all.map((share) => ({ share })))
const judged = { by: 'clicked', days: 7, how: 'self' } as const
const tried: NewStep = {
  ...{ kind: 'mail', mailingId: 10, judged },
  versions: [
    { mailingId: 11, share: 200 },
    { mailingId: 12, share: 300 },
  ],
}
const map = insertStep(emptyMap, null, 'hello', tried)
const inside: InsideFacts = {
  ...{ subscribed: true, suppressed: false, pausedUntil: null, zone: 'UTC' },
  ...{ holds: () => false, lot: () => 0.5, sharesOf: () => null, fieldOf: () => null },
  bestHour: () => 0,
}
const come = (over: Partial<InsideFacts>) =>
  advance(map, { step: 'hello', due: 0, arrived: 0, visit: 0 }, { ...inside, ...over }, 0)
const gets = (over: Partial<InsideFacts>) => {
  const [effect] = come(over).effects
  return effect?.is === 'mail' ? effect : null
}

test('somebody falls on what their place in the lot belongs to', () => {
  fc.assert(
    fc.property(shares, fc.nat(4), (drawn, n) => {
      const which = n % (drawn.length + 1)
      expect(fallsOn(drawn, lotFor(drawn, which), null)).toBe(which)
    }),
  )
})

test('people get one version of a mail, as wide as its share says, and always the same', () => {
  const counts = new Map<number, number>()
  for (let person = 1; person <= 20_000; person++) {
    const lot = () => lotOf(1, 'hello', person, 0)
    const { mailingId } = gets({ lot })!
    expect(gets({ lot })!.mailingId).toBe(mailingId)
    counts.set(mailingId, (counts.get(mailingId) ?? 0) + 1)
  }
  // Four standard deviations.
  for (const [id, share] of [
    [10, 0.5],
    [11, 0.2],
    [12, 0.3],
  ] as const)
    expect(Math.abs(counts.get(id)! / 20_000 - share)).toBeLessThan(
      4 * Math.sqrt((share * (1 - share)) / 20_000),
    )
})

test('they go on by one way, and it is said which versions they are not to get besides', () => {
  expect(gets({ lot: () => 0.1 })).toEqual({ is: 'mail', mailingId: 11, others: [10, 12] })
  expect(come({ lot: () => 0.1 }).passed).toEqual({ step: 'hello', way: 0 })
  expect(gets({ lot: () => 0.1, sharesOf: () => [0, 0, 1_000] })!.mailingId).toBe(12)
  // Whoever paused their mail gets none of them.
  expect(come({ pausedUntil: DAY })).toMatchObject({ effects: [], next: { due: DAY } })
})

test('all of them are mails of the map; without word of it the first is what is to come', () => {
  expect(mailingsOfMap(map)).toEqual([10, 11, 12])
  expect(mailAhead(map, 'hello')).toEqual([{ mailingId: 10, after: 0 }])
  expect(mailingsOfMap(withMailings(map, (id) => id * 2))).toEqual([20, 22, 24])
})

test('a version goes, and where it was the main one the first of the others takes its place', () => {
  const step = map.steps.hello as MailStep
  expect(withoutVersion(step, 2)).toEqual({
    ...{ kind: 'mail', mailingId: 10, judged, next: null },
    versions: [{ mailingId: 11, share: 200 }],
  })
  const first = withoutVersion(step, 0)
  expect(first).toMatchObject({ mailingId: 11, versions: [{ mailingId: 12, share: 300 }] })
  expect(withoutVersion(first, 1)).toEqual({ kind: 'mail', mailingId: 11, next: null })
})

test('a map with versions is read back, and nothing that is none', () => {
  const read = (over: object) =>
    readMap(
      JSON.parse(JSON.stringify({ ...map, steps: { hello: { ...map.steps.hello, ...over } } })),
    )
  expect(read({})).toEqual(map)
  const version = { mailingId: 11, share: 200 }
  for (const versions of [
    7,
    [null],
    [{ mailingId: 10, share: 200 }],
    [version, version],
    [{ mailingId: 11, share: 1_000 }],
    [{ mailingId: 11, share: 0 }],
    [{ mailingId: 'x', share: 200 }],
    Array.from({ length: 5 }, (_, n) => ({ mailingId: 20 + n, share: 10 })),
  ])
    expect(read({ versions }), JSON.stringify(versions)).toBeNull()
  // Without others there is nothing to judge.
  expect(read({ versions: [] })?.steps.hello).toEqual({ kind: 'mail', mailingId: 10, next: null })
  expect(read({ judged: { by: 'luck' } })).toBeNull()
})
