import { beforeEach, expect, test } from 'vitest'
import { emptyMap, everyRound, insertStep, joinAt, type SequenceMap } from '../core/sequences'
import { startingLetter } from '../core/letters'
import { DAY, HOUR } from '../core/time'
import { all, q, run, type Database } from '../database'
import { madeUpAccount, somebody } from '../database/made-up'
import { everythingKnown, mergePeople, tagNamed, tagPeople } from '../database/people'
import { recipientAdder } from '../database/sending'
import {
  addMailOf,
  addSequence,
  carryOut,
  changeSequence,
  decideSplit,
  leftBy,
  outcomeOfGroups,
  outcomesOf,
  pauseSequence,
  readSequences,
  sequenceById,
  standingOf,
  startSequence,
  trafficOf,
  wayOf,
  isOneOf,
} from '../database/sequences'
import { madeUpEngine } from './made-up'
import { runSequences } from './run-sequences'

let db: Database
let list: number
let engine: ReturnType<typeof madeUpEngine>
beforeEach(() => {
  ;({ db, list } = madeUpAccount())
  engine = madeUpEngine(db)
})
async function settle() {
  while (await runSequences(engine));
}
const start = {
  by: [{ is: 'joined' as const, signUpId: null }],
  again: { is: 'never' as const },
  rule: null,
}
type How = 'hand' | 'self' | 'adaptive'
function mapJudged(how: How, share = 500): SequenceMap {
  const map = insertStep({ ...emptyMap, start }, null, 'split', {
    ...{ kind: 'split', ways: [{ share, next: null }] },
    judged: { by: 'money', days: 7, how },
  })
  return insertStep(map, 'split', 'wait', { kind: 'wait', ms: 30 * DAY })
}
function running(map: SequenceMap): number {
  const id = addSequence(db, 'Tested', list, 0)
  changeSequence(db, sequenceById(db, id)!, { name: 'Tested', listId: list, map }, 1)
  expect(startSequence(db, sequenceById(db, id)!, engine.time.now)).toBe(true)
  return id
}
let names = 0
const join = () => somebody(db, `p${names++}`, { list, now: engine.time.now })
let orders = 0
const buys = (person_id: number, money: number) =>
  run(
    db,
    q
      .insertInto('orders')
      .values({ person_id, number: `N${orders++}`, at: engine.time.now + HOUR, money }),
  )
const wayTaken = (person: number) =>
  all(
    db,
    q.selectFrom('sequence_trail').select('way').where('person_id', '=', person).orderBy('visit'),
  )[0]?.way

/** 300 people come in; of those who go by B half buy. */
async function three_hundred() {
  const people = Array.from({ length: 300 }, join)
  await settle()
  for (const [n, person] of people.entries())
    if (wayTaken(person) === 1 ? n % 2 === 0 : n % 10 === 0) buys(person, 4_000 + (n % 7))
  return people
}
const shares = (id: number) =>
  standingOf(db, id, 'split', sequenceById(db, id)!.map)?.shares ?? null

test('the better way takes everybody once their days are over and it is clear; who comes then goes by it', async () => {
  const id = running(mapJudged('self'))
  await three_hundred()
  engine.time.now += 6 * DAY
  await settle()
  expect(shares(id)).toBeNull()
  engine.time.now += DAY
  await settle()
  expect(shares(id)).toEqual([0, 1_000])
  const next = Array.from({ length: 20 }, join)
  await settle()
  expect(new Set(next.map(wayTaken))).toEqual(new Set([1]))
  const shown = {
    step: 'split',
    since: standingOf(db, id, 'split', sequenceById(db, id)!.map)!.since,
  }
  // What is decided by hand stays.
  expect(decideSplit(db, sequenceById(db, id)!, shown, 0, 'Wren', engine.time.now)).toBe(true)
  engine.time.now += DAY
  await settle()
  expect(shares(id)).toEqual([1_000, 0])
  expect(standingOf(db, id, 'split', sequenceById(db, id)!.map)).toMatchObject({ by: 'Wren' })
  const other = (of: typeof shown, way: number) =>
    decideSplit(db, sequenceById(db, id)!, of, way, 'Wren', 0)
  expect(other({ ...shown, step: 'wait' }, 0)).toBe(false)
  expect(other(shown, 2)).toBe(false)
  // As it was shown, it is another split by now.
  expect(other({ ...shown, since: shown.since + 1 }, 0)).toBe(false)
})

test('shares that follow the evidence lead more of those who come then by the better way', async () => {
  const id = running(mapJudged('adaptive'))
  await three_hundred()
  engine.time.now += 7 * DAY
  await settle()
  const come = shares(id)!
  expect(come[1]).toBeGreaterThan(850)
  expect(come[0]).toBeGreaterThanOrEqual(100)
})

test('a split that is published as another one is judged anew; one that stayed is not', async () => {
  const id = running(mapJudged('self'))
  await three_hundred()
  engine.time.now += 7 * DAY
  await settle()
  const publish = (map: SequenceMap) => {
    pauseSequence(db, id, engine.time.now)
    const now = sequenceById(db, id)!
    changeSequence(db, now, { name: 'Tested', listId: list, map }, now.revision)
    startSequence(db, sequenceById(db, id)!, engine.time.now)
  }
  const more = insertStep(mapJudged('self'), 'wait', 'tag', {
    ...{ kind: 'do', acts: [{ is: 'tag', tag: 'x' }] },
  })
  publish(more)
  expect(shares(id)).toEqual([0, 1_000])
  publish(mapJudged('self', 300))
  expect(shares(id)).toBeNull()
})

test('those held out come in, get nothing, and are compared over the same days', async () => {
  const map = insertStep({ ...emptyMap, start: { ...start, heldOut: 300 } }, null, 'tag', {
    ...{ kind: 'do', acts: [{ is: 'tag', tag: 'led' }] },
  })
  const id = running(map)
  const people = Array.from({ length: 200 }, join)
  await settle()
  const [{ inside, finished, left, heldOut }] = readSequences(db) as [
    ReturnType<typeof readSequences>[number],
  ]
  expect(inside + finished + left + heldOut).toBe(200)
  expect(heldOut).toBeGreaterThan(40)
  expect(heldOut).toBeLessThan(80)
  expect(leftBy(db, id)).toEqual([])
  expect(trafficOf(db, id).tag).toEqual([200 - heldOut])
  const isLed = (person: number) => everythingKnown(db, person)!.tags.length > 0
  for (const [n, person] of people.entries()) if (isLed(person) && n % 2 === 0) buys(person, 5_000)
  const held = people.filter((one) => !isLed(one))
  buys(held[0]!, 5_000)
  engine.time.now += 7 * DAY - 1
  const sequence = sequenceById(db, id)!
  const whichever = isOneOf(db, everyRound, engine.time.now)
  const ordered = { step: null, when: { is: 'ordered' as const }, worth: null }
  const of = () => outcomeOfGroups(db, sequence, ordered, 7, engine.time.now, whichever)
  expect(of().led.of).toBe(0)
  engine.time.now += DAY
  expect(of()).toMatchObject({
    led: { of: 200 - heldOut },
    heldOut: { of: heldOut, hits: 1, money: 5_000, each: [5_000] },
    oneIn: 1,
  })
  expect(of().led.hits).toBeGreaterThan(50)
})

test('somebody’s way is kept step by step, also where they become somebody else', async () => {
  const id = running(mapJudged('hand'))
  const [one, other] = [join(), somebody(db, 'kept', { now: engine.time.now })]
  await settle()
  engine.time.now += 30 * DAY
  await settle()
  const way = wayOf(db, id, one)
  expect(way).toMatchObject([{ round: 0, state: 'finished', by: { is: 'joined' } }])
  expect(way[0]!.trail[0]).toMatchObject({ step: 'split', visit: 0, at: way[0]!.entered_at })
  expect(mergePeople(db, other, one, engine.time.now)).toBe(true)
  expect(wayOf(db, id, other)).toEqual(way)
  expect(wayOf(db, id, one)).toEqual([])
})

/** Two versions of a mail, judged by who clicked in them; those who were sent the second click more. */
function runningVersions(how: How) {
  const id = addSequence(db, 'Tested', list, 0)
  const [a, b] = ['A', 'B'].map((name) =>
    addMailOf(db, sequenceById(db, id)!, name, 0, sound(name)),
  ) as [number, number]
  const map = insertStep({ ...emptyMap, start }, null, 'split', {
    ...{ kind: 'mail', mailingId: a, versions: [{ mailingId: b, share: 500 }] },
    judged: { by: 'clicked', days: 7, how },
  })
  const long = insertStep(map, 'split', 'wait', { kind: 'wait', ms: 30 * DAY })
  changeSequence(db, sequenceById(db, id)!, { name: 'Tested', listId: list, map: long }, 1)
  expect(startSequence(db, sequenceById(db, id)!, engine.time.now)).toBe(true)
  return { id, a, b }
}
const sound = (subject: string) => ({ ...startingLetter(), subject })
const sentTo = (mailing_id: number) =>
  all(db, q.selectFrom('recipients').select('person_id').where('mailing_id', '=', mailing_id)).map(
    ({ person_id }) => person_id,
  )

test('the version of a mail that is clicked more goes to everybody once it is clear; nobody gets two', async () => {
  const { id, a, b } = runningVersions('self')
  const people = Array.from({ length: 300 }, join)
  await settle()
  const [first, second] = [sentTo(a), sentTo(b)]
  expect([...first, ...second].sort((x, y) => x - y)).toEqual(people)
  expect(first.length).toBeGreaterThan(100)
  expect(second.length).toBeGreaterThan(100)
  const at = engine.time.now
  const took = (mailing_id: number, clicks: (n: number) => boolean) => {
    for (const [n, person_id] of sentTo(mailing_id).entries())
      run(
        db,
        q
          .updateTable('recipients')
          .set({ state: 'accepted', accepted_at: at, ...(clicks(n) && { clicked_at: at + HOUR }) })
          .where('mailing_id', '=', mailing_id)
          .where('person_id', '=', person_id),
      )
  }
  took(a, (n) => n % 20 === 0)
  took(b, (n) => n % 2 === 0)
  const map = sequenceById(db, id)!.map
  const step = map.steps.split as never
  engine.time.now += 6 * DAY
  await settle()
  expect(shares(id)).toBeNull()
  engine.time.now += 2 * DAY
  await settle()
  expect(outcomesOf(db, id, map, 'split', step, 0, engine.time.now)).toEqual([
    { kind: 'rate', hits: Math.ceil(first.length / 20), of: first.length },
    { kind: 'rate', hits: Math.ceil(second.length / 2), of: second.length },
  ])
  // Of some rounds alone: of one who clicked in B and one who did not, and of nobody in A.
  tagPeople(db, second.slice(0, 2), tagNamed(db, 'looked at'), true)
  const those = isOneOf(db, { ...everyRound, who: 'tagged "looked at"' }, engine.time.now)
  expect(outcomesOf(db, id, map, 'split', step, 0, engine.time.now, those)).toEqual([
    { kind: 'rate', hits: 0, of: 0 },
    { kind: 'rate', hits: 1, of: 2 },
  ])
  expect(shares(id)).toEqual([0, 1_000])
  const next = Array.from({ length: 20 }, join)
  await settle()
  expect(sentTo(b).slice(-20)).toEqual(next)
  expect(sentTo(a)).toHaveLength(first.length)
  // Whoever got one of them gets no other in the same round, whatever is published.
  const at2 = { sequenceId: id, person: first[0]!, round: 0, step: 'split', visit: 0, act: 0 }
  const mails = recipientAdder(db, engine.time.now)
  const again = (mailingId: number, others: number[]) =>
    carryOut(
      db,
      { is: 'mail', mailingId, others },
      at2,
      { list, sequence: 'Tested', mails },
      engine.time.now,
    )
  again(b, [a])
  mails.count()
  expect(sentTo(b)).not.toContain(first[0])
  again(b, [])
  expect(sentTo(b)).toContain(first[0])
})

test('who is sent back goes as many times as is said, keeps their way of a split, and is judged once', async () => {
  let map = mapJudged('hand')
  map = insertStep(map, 'split', 'again', {
    ...{ kind: 'wait', ms: 2 * DAY, back: { to: 'split', times: 3 } },
  })
  // Both ways of the split lead to it.
  map = joinAt(map, 'split', 1, 'again')
  const id = running(map)
  const people = Array.from({ length: 40 }, join)
  await settle()
  // The engine is silent for longer than all of it would have taken: each comes by once, and waits anew.
  engine.time.now += 20 * DAY
  await settle()
  expect(trafficOf(db, id)).toMatchObject({ again: [0, 40] })
  for (let days = 0; days < 12; days += 2) {
    engine.time.now += 2 * DAY
    await settle()
  }
  const traffic = trafficOf(db, id)
  expect(traffic.again).toEqual([40, 120])
  expect(traffic.split!.reduce((sum, many) => sum + many, 0)).toBe(160)
  for (const person of people.slice(0, 5)) {
    const ways = all(
      db,
      q
        .selectFrom('sequence_trail')
        .select('way')
        .where('person_id', '=', person)
        .where('step', '=', 'split'),
    )
    expect(ways).toEqual(Array.from({ length: 4 }, () => ({ way: wayTaken(person) })))
  }
  const { split } = map.steps
  const outcomes = outcomesOf(
    ...([db, id, map, 'split'] as const),
    split as Parameters<typeof outcomesOf>[4],
    ...([0, engine.time.now] as const),
  )
  expect(outcomes.reduce((sum, { of }) => sum + of, 0)).toBe(40)
})
