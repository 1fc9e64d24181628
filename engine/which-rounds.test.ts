import { beforeEach, expect, test } from 'vitest'
import { sequenceResults } from '../cases/sequences'
import {
  emptyMap,
  everyRound,
  insertStep,
  type NewStep,
  type SequenceMap,
  type Starting,
} from '../core/sequences'
import { DAY } from '../core/time'
import { all, q, run, type Database } from '../database'
import { madeUpAccount, somebody } from '../database/made-up'
import { addSegment } from '../database/segments'
import {
  addMailOf,
  addSequence,
  changeSequence,
  enrolPerson,
  figuresOf,
  mailingsOfSequence,
  HELD_OUT,
  isOneOf,
  leftBy,
  readSequences,
  sequenceById,
  standingAt,
  startSequence,
  takeOut,
  trafficOf,
  whoProblem,
} from '../database/sequences'
import { madeUpEngine } from './made-up'
import { runSequences } from './run-sequences'

let db: Database
let list: number
let engine: ReturnType<typeof madeUpEngine>
let id: number
beforeEach(() => {
  ;({ db, list } = madeUpAccount())
  engine = madeUpEngine(db)
})
async function settle() {
  while (await runSequences(engine));
}
let names = 0
const join = (domain = 'harbourmail.example') =>
  somebody(db, `w${names++}@${domain}`, { list, now: engine.time.now })
const joined: Starting = { is: 'joined', signUpId: null }
const basket: Starting = { is: 'event', name: 'basket' }
const halves: NewStep = { kind: 'split', ways: [{ share: 500, next: null }] }
const wait: NewStep = { kind: 'wait', ms: 3 * DAY }

function publish(map: SequenceMap) {
  const sequence = sequenceById(db, id)!
  changeSequence(db, sequence, { name: 'Asked', listId: list, map }, sequence.revision)
  expect(startSequence(db, sequenceById(db, id)!, engine.time.now)).toBe(true)
}
/** Ten by joining at one provider, five days later six by an event at another by the next version, four by hand, one of whom is out. */
async function three() {
  id = addSequence(db, 'Asked', list, 0)
  const start = { by: [joined], again: { is: 'never' as const }, rule: null, heldOut: 200 }
  const mailing = addMailOf(db, sequenceById(db, id)!, 'Mail', 0)
  let map = insertStep({ ...emptyMap, start }, null, 'split', halves)
  map = insertStep(map, 'split', 'mail', { kind: 'mail', mailingId: mailing })
  map = insertStep(map, 'mail', 'wait', wait)
  publish(map)
  for (let n = 0; n < 10; n++) join()
  await settle()
  engine.time.now += 5 * DAY
  await settle()
  const others = Array.from({ length: 10 }, () => somebody(db, `v${names++}@inkpost.example`, {}))
  for (const person_id of others)
    run(
      db,
      q
        .insertInto('subscriptions')
        .values({ person_id, list_id: list, state: 'subscribed', since: engine.time.now }),
    )
  publish({ ...map, start: { ...start, by: [joined, basket] } })
  for (const person_id of others.slice(0, 6))
    run(
      db,
      q
        .insertInto('events')
        .values({ person_id, name: 'basket', at: engine.time.now, props: '{}' }),
    )
  await settle()
  for (const one of others.slice(6)) enrolPerson(db, id, one, engine.time.now)
  await settle()
  takeOut(db, id, others[9]!, engine.time.now)
  return others
}
const of = (which: object) =>
  sequenceResults(
    db,
    sequenceById(db, id)!,
    { days: 7, which: { ...everyRound, ...which } },
    engine.time.now,
  )
const cameIn = (which: object) => {
  const { inside, finished, left, heldOut } = of(which).figures!.counts
  return inside + finished + left + heldOut
}

test('counted row by row, all rounds are what stands in sums', async () => {
  await three()
  const { figures, left } = figuresOf(db, id, isOneOf(db, everyRound, engine.time.now), HELD_OUT)
  const [known] = readSequences(db)
  expect(figures.counts).toEqual({
    ...{ inside: known!.inside, finished: known!.finished },
    ...{ left: known!.left, heldOut: known!.heldOut },
  })
  expect(figures.standing).toEqual(standingAt(db, id))
  expect(figures.traffic).toEqual(trafficOf(db, id))
  expect(left).toEqual(leftBy(db, id))
  const queued = all(db, q.selectFrom('recipients').select('person_id')).length
  expect(queued).toBeGreaterThan(0)
  expect(figures.traffic.mail).toEqual([queued])
  expect(of({}).figures).toBeNull()
})

test('who wrote back is counted by mail, of some rounds too; where replies go past us it is not measured', async () => {
  await three()
  const [mailing] = mailingsOfSequence(db, id).map((one) => one.id)
  expect(of({}).replied).toEqual({ [mailing!]: null })
  const got = all(db, q.selectFrom('recipients').select('person_id').orderBy('person_id'))
  for (const { person_id } of got.slice(0, 2))
    run(
      db,
      q
        .updateTable('recipients')
        .set({ replied_at: engine.time.now })
        .where('person_id', '=', person_id),
    )
  expect(of({}).replied).toEqual({ [mailing!]: 2 })
  // Those who wrote back came in first.
  expect([of({ version: 1 }).replied, of({ version: 2 }).replied]).toEqual([
    { [mailing!]: 2 },
    { [mailing!]: null },
  ])
})

test('results are of those who came in lately, by a version, by a start, in a segment, at a provider', async () => {
  const others = await three()
  expect(cameIn({ version: 1 })).toBe(10)
  expect(cameIn({ version: 2 })).toBe(10)
  expect(cameIn({ version: 2, start: 1 })).toBe(6)
  expect(cameIn({ start: 'hand' })).toBe(4)
  expect(cameIn({ start: 0 })).toBe(10)
  expect(cameIn({ days: 2 })).toBe(10)
  expect(cameIn({ days: 90 })).toBe(20)
  expect(cameIn({ domain: 'inkpost.example' })).toBe(10)
  expect(cameIn({ domain: 'inkpost.example', version: 1 })).toBe(0)
  const field = { key: 'first_name', test: { is: 'equal' as const, text: 'Ada' } }
  const segment = addSegment(db, 'Adas', { kind: 'field', ...field }, engine.time.now)
  for (const one of others.slice(0, 3))
    run(db, q.updateTable('people').set({ first_name: 'Ada' }).where('id', '=', one))
  expect(cameIn({ segmentId: segment })).toBe(3)
  expect(cameIn({ segmentId: 999 })).toBe(0)
  // Asked in the words of segments, by a field of theirs; of what can't be read nobody is.
  expect(cameIn({ who: 'First name is "Ada"' })).toBe(3)
  expect(cameIn({ who: 'First name is "Ada"', start: 'hand' })).toBe(0)
  expect(cameIn({ who: 'First name is' })).toBe(0)
  const who = { ...everyRound, who: 'First name is' }
  expect(whoProblem(db, who)).toMatch(/./)
  expect(whoProblem(db, { ...who, who: 'First name is "Ada"' })).toBeNull()
  // By which form they signed up.
  const guide = { name: 'Guide', key: 'g', form: '{}', created_at: 0 }
  const signUpId = run(db, q.insertInto('sign_ups').values(guide)).id
  expect(cameIn({ signUpId })).toBe(0)
  for (const person_id of others.slice(0, 2))
    run(
      db,
      q.insertInto('sign_up_sendings').values({
        ...{ sign_up_id: signUpId, person_id, state: 'confirmed', at: 0, ended_at: 1 },
        ...{ version: 1, language: 'en', address: 'a', normal: 'a', given: '{}', ticked: '[]' },
        ...{ device: 'computer', hash: String(person_id) },
      }),
    )
  expect(cameIn({ signUpId })).toBe(2)
  // The map is that of the version, and why people left is told of them alone.
  expect(of({ version: 1 }).figures!.map.start.by).toEqual([joined])
  expect(of({ start: 'hand' }).left).toEqual([{ why: 'by hand', people: 1 }])
  expect(of({ version: 1 }).left).toEqual([])
})

test('goal and money are of those who are looked at', async () => {
  await three()
  engine.time.now += 10 * DAY
  const first = all(
    db,
    q.selectFrom('enrolments').select(['person_id', 'why', 'entered_at']).where('version', '=', 1),
  ).filter(({ why }) => why !== HELD_OUT)
  run(
    db,
    q.insertInto('orders').values({
      ...{ person_id: first[0]!.person_id, number: 'N1' },
      ...{ at: first[0]!.entered_at + DAY, money: 5_000 },
    }),
  )
  const led = (which: object) => of(which).goals[0]!.led
  expect(led({ version: 1 })).toMatchObject({ of: first.length, money: 5_000 })
  expect(led({ version: 2 }).money).toBe(0)
  expect(led({}).money).toBe(5_000)
})
