import { HOUR, MINUTE } from '../time'
import type { DispatchPlan, TestPlan } from './plan'

/** What will happen when a mailing is sent off: who gets it, how and when. All counts are exact as of the moment they were made. */
export interface Happening {
  subject: string
  /** As readers see it: name and address. */
  sender: string
  list: string
  /** Who of the list, in words of rules; null: everybody. */
  among: string | null
  /** Whom not, in words of rules; null: nobody is excluded. */
  without: string | null
  /** Who may get it: `mailed` and `heldOut` together. */
  eligible: number
  heldOut: number
  mailed: number
  /** In how many versions it is tried and on how many people, by variant. */
  test: { of: TestPlan['of']; people: number; each: number[] } | null
  plan: DispatchPlan
  /** How many are in each tier, in the order in which tiers follow; only where the pace is `widening`. */
  tiers: number[] | null
  /** Messages a minute, the slower of the plan's and the account's; null: as fast as the mail server takes them. */
  perMinute: number | null
  /** Providers with a pace of their own, and how many of the mailed are there. */
  providers: { people: number; perMinute: number }[]
  /** When it begins and, where each gets it at a time of their own, when the last time is; null: now. */
  begins: number | null
  lastBegins: number | null
}

/** What goes out and to whom, as marks: equal marks, equal things. */
export interface GoesOut {
  /** The bytes of the letters: words, look, postal address, of every variant. */
  letter: string
  plan: string
  list: string
  /** The rules, and those of the segments that they ask. */
  rule: string
  sender: string
  /** The wished time; empty: at once. */
  when: string
}

/** What was shown before somebody sent it off. */
export interface Fingerprint extends GoesOut {
  people: number
}

/** The head count may move by so much before it has to be looked at again. */
export const HEAD_COUNT_MAY_MOVE = 0.01

const changed: Record<keyof GoesOut, string> = {
  letter: 'the letter',
  plan: 'how it is to go out',
  list: 'the list',
  rule: 'who is to get it',
  sender: 'the sender',
  when: 'the time',
}

/** What has changed since it was shown, in words; none where all is as it was. */
export function changedSince(shown: Fingerprint, now: Fingerprint): string[] {
  const parts = (Object.keys(changed) as (keyof GoesOut)[])
    .filter((part) => shown[part] !== now[part])
    .map((part) => changed[part])
  const moved = Math.abs(now.people - shown.people) > shown.people * HEAD_COUNT_MAY_MOVE
  return moved
    ? [...parts, `how many get it (${number(now.people)} instead of ${number(shown.people)})`]
    : parts
}

/**
 * One sentence of what will happen: who, how many, how, when, what is tried, who is held out. `at` writes a time as the
 * account has it.
 */
export function happeningWords(happening: Happening, at: (time: number) => string): string {
  const { subject, sender, list, among, without, mailed, heldOut, test, plan, begins } = happening
  const who = [
    `${people(mailed)} on ${list}`,
    among && `of those: ${among}`,
    without && `without: ${without}`,
  ]
  const how = [
    {
      'at-once': '',
      'best-hour': 'each at their best hour',
      'local-time': '',
      widening: 'the keenest first',
    }[plan.pace],
    plan.pace === 'widening' && `each tier watched for ${minutes(plan.watchMinutes)}`,
    happening.perMinute !== null && `at most ${number(happening.perMinute)} a minute`,
    test && testWords(test, plan.test!, mailed),
    heldOut > 0 && `with ${people(heldOut)} in the control group, who don’t get it`,
  ]
  const when = begins === null ? 'now' : at(begins)
  const clock =
    plan.pace === 'local-time' && plan.localAt
      ? `at ${plan.localAt.slice(11)} on ${plan.localAt.slice(0, 10)} on each reader’s own clock, the first of them ${when}`
      : when
  return `“${subject || 'a letter without a subject'}” from ${sender} goes to ${[...who, clock, ...how].filter(Boolean).join(', ')}.`
}

function testWords(
  { of, people: many, each }: NonNullable<Happening['test']>,
  plan: TestPlan,
  mailed: number,
) {
  const tried = {
    subject: 'the subject',
    sender: 'the sender’s name',
    letter: 'the letter',
    hour: 'the hour',
  }[of]
  const on = many === mailed ? 'on everybody' : `on ${people(many)}`
  const then =
    many === mailed
      ? ''
      : plan.decides === 'hand'
        ? '; the rest waits until you decide'
        : `; the rest gets the best by ${{ open: 'opens', click: 'clicks', goal: 'the goal', money: 'revenue' }[plan.measure]} after ${hours(plan.hours)}`
  return `trying ${tried} in ${each.length} versions ${on}${then}`
}

/**
 * How long it takes from its beginning until the last message has gone, ms; null where nothing sets a pace, so that it
 * hangs on the mail server alone. `waits`: somebody has to decide on the way, and that time is not in it.
 */
export function howLong(happening: Happening): { ms: number; waits: boolean } | null {
  const { plan, mailed, test, tiers, begins, lastBegins } = happening
  const inTest = test && test.people < mailed ? test.people : 0
  const waits = inTest > 0 && plan.test!.decides === 'hand'
  const trial = inTest > 0 ? atPace(happening, inTest) + (waits ? 0 : plan.test!.hours * HOUR) : 0
  const rest = mailed - inTest
  const share = mailed > 0 ? rest / mailed : 0
  switch (plan.pace) {
    case 'widening': {
      // A test takes its people out of every tier alike.
      const some = (tiers ?? [rest]).map((n) => n * share).filter((n) => n > 0)
      const going = some.reduce((sum, n) => sum + atPace(happening, n), 0)
      return {
        ms: trial + going + Math.max(0, some.length - 1) * plan.watchMinutes * MINUTE,
        waits,
      }
    }
    case 'best-hour':
      return { ms: trial + Math.max(24 * HOUR, atPace(happening, rest)), waits }
    case 'local-time': {
      const apart = begins !== null && lastBegins !== null ? lastBegins - begins : 0
      return { ms: trial + Math.max(apart, atPace(happening, rest)), waits }
    }
    case 'at-once': {
      const ms = trial + atPace(happening, rest)
      return ms > 0 || waits ? { ms, waits } : null
    }
  }
}

/** How long so many take where nothing else holds them, ms; 0 where nothing sets a pace. */
function atPace({ perMinute, providers, mailed }: Happening, many: number): number {
  const share = mailed > 0 ? many / mailed : 0
  const all = perMinute === null ? 0 : many / perMinute
  return Math.max(all, ...providers.map((one) => (one.people * share) / one.perMinute)) * MINUTE
}

const number = (n: number) => n.toLocaleString('en-GB')
const people = (n: number) => (n === 1 ? '1 person' : `${number(n)} people`)
const minutes = (n: number) => (n === 1 ? 'a minute' : `${number(n)} minutes`)
const hours = (n: number) => (n === 1 ? 'an hour' : `${number(n)} hours`)

/** What will happen when the mailing is sent off, in one sentence, with what `Send` hands back of it. */
export interface HappeningAnswer {
  /** Null while there is nothing to say: it has no list. */
  sentence: string | null
  happening: Happening | null
  fingerprint: Fingerprint | null
  takes: { ms: number; waits: boolean } | null
  /** What has to be set first. */
  problems: string[]
}
