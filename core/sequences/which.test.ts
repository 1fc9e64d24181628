import fc from 'fast-check'
import { expect, test } from 'vitest'
import { everyRound, isEveryRound, readWhich, writeWhich } from '.'

test('which rounds are looked at is written into an address and read back', () => {
  const many = fc.option(fc.integer({ min: 1, max: 999_999_999 }))
  const which = fc.record({
    ...{ days: many, version: many, segmentId: many },
    start: fc.oneof(fc.constant(null), fc.constant('hand' as const), fc.nat(9)),
    domain: fc.option(fc.constantFrom('harbourmail.example', 'a-b.example')),
    signUpId: many,
    who: fc.option(fc.constantFrom('Town is "Sandreach"', 'x & y=1')),
  })
  fc.assert(fc.property(which, (one) => void expect(readWhich(writeWhich(one))).toEqual(one)))
})

test('what is none is whichever', () => {
  for (const query of [
    {},
    { since: '0', version: '-1', start: 'x', segment: '1e3', provider: "a'b" },
    { since: ['7', '8'], provider: { a: 1 }, who: ['a'], signup: '0' },
    { who: '  ' },
  ])
    expect(readWhich(query)).toEqual(everyRound)
  expect(isEveryRound(readWhich({ start: '0' }))).toBe(false)
})
