import fc from 'fast-check'
import { expect, test } from 'vitest'
import { HOUR, MINUTE } from '../time'
import {
  changedSince,
  happeningWords,
  howLong,
  type Fingerprint,
  type Happening,
} from './happening'
import { noVariant, plainPlan, type TestPlan } from './plan'

const plain: Happening = {
  subject: 'Wind on Sunday',
  sender: 'Galewright Kites <hello@galewright.example>',
  list: 'Wind notes',
  among: null,
  without: null,
  eligible: 900,
  heldOut: 0,
  mailed: 900,
  test: null,
  plan: plainPlan,
  tiers: null,
  perMinute: null,
  providers: [],
  begins: null,
  lastBegins: null,
}
const tested: TestPlan = {
  of: 'subject',
  variants: [noVariant, { ...noVariant, subject: 'Other' }],
  share: 0.3,
  measure: 'open',
  hours: 4,
  decides: 'itself',
}
const at = (time: number) => `at ${time}`

test('one sentence says who, how many, how, when, what is tried and who is held out', () => {
  expect(happeningWords(plain, at)).toBe(
    '“Wind on Sunday” from Galewright Kites <hello@galewright.example> goes to 900 people on Wind notes, now.',
  )
  const words = happeningWords(
    {
      ...plain,
      among: 'opened at least once',
      heldOut: 91,
      mailed: 809,
      plan: { ...plainPlan, pace: 'widening', watchMinutes: 30, test: tested },
      test: { of: 'subject', people: 240, each: [118, 122] },
      perMinute: 600,
      begins: 7,
    },
    at,
  )
  expect(words).toMatch(/goes to 809 people on Wind notes, of those: opened at least once, at 7,/)
  expect(words).toMatch(/the keenest first, each tier watched for 30 minutes, at most 600 a minute/)
  expect(words).toMatch(
    /trying the subject in 2 versions on 240 people; the rest gets the best by opens after 4 hours/,
  )
  expect(words).toMatch(/with 91 people in the control group/)
})

test('how long it takes counts the watching, the day of best hours, the zones and the test', () => {
  expect(howLong(plain)).toBeNull()
  expect(howLong({ ...plain, perMinute: 90 })).toEqual({ ms: 10 * MINUTE, waits: false })
  const widening = { ...plainPlan, pace: 'widening' as const, watchMinutes: 60 }
  expect(howLong({ ...plain, perMinute: 90, plan: widening, tiers: [450, 0, 450] })!.ms).toBe(
    70 * MINUTE,
  )
  expect(howLong({ ...plain, plan: { ...plainPlan, pace: 'best-hour' } })!.ms).toBe(24 * HOUR)
  const local = { ...plainPlan, pace: 'local-time' as const }
  expect(howLong({ ...plain, plan: local, begins: 0, lastBegins: 9 * HOUR })!.ms).toBe(9 * HOUR)
  const test = { of: 'subject' as const, people: 300, each: [150, 150] }
  const withTest = { ...plain, perMinute: 90, test, plan: { ...plainPlan, test: tested } }
  expect(howLong(withTest)!.ms).toBe(4 * HOUR + 10 * MINUTE)
  const byHand = {
    ...withTest,
    plan: { ...plainPlan, test: { ...tested, decides: 'hand' as const } },
  }
  expect(howLong(byHand)).toEqual({ ms: 10 * MINUTE, waits: true })
  expect(
    howLong({ ...plain, perMinute: 900, providers: [{ people: 300, perMinute: 10 }] })!.ms,
  ).toBe(30 * MINUTE)
})

test('what changed is said; a head count may move by a hundredth, not more', () => {
  const seen: Fingerprint = {
    letter: 'a',
    plan: 'b',
    list: 'c',
    rule: 'd',
    sender: 'e',
    when: '',
    people: 1_000,
  }
  expect(changedSince(seen, seen)).toEqual([])
  expect(changedSince(seen, { ...seen, letter: 'x', sender: 'y' })).toEqual([
    'the letter',
    'the sender',
  ])
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 100_000 }),
      fc.integer({ min: 0, max: 100_000 }),
      (was, is) => {
        const changed = changedSince({ ...seen, people: was }, { ...seen, people: is })
        expect(changed.length > 0).toBe(Math.abs(is - was) > was / 100)
      },
    ),
  )
})
