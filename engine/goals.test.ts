import { beforeEach, expect, test } from 'vitest'
import { sequenceResults } from '../cases/sequences'
import {
  emptyMap,
  everyRound,
  insertStep,
  readMap,
  removeStep,
  waysOf,
  type GoalStep,
  type NewStep,
  type SequenceMap,
} from '../core/sequences'
import { DAY } from '../core/time'
import { one, q, run, type Database } from '../database'
import { madeUpAccount, somebody } from '../database/made-up'
import { everythingKnown, tagNamed } from '../database/people'
import {
  addSequence,
  changeSequence,
  enrolPerson,
  HELD_OUT,
  sequenceById,
  startSequence,
  trafficOf,
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

const tag = (tag: string): NewStep => ({ kind: 'do', acts: [{ is: 'tag', tag }] })
const wait = (days: number): NewStep => ({ kind: 'wait', ms: days * DAY })
const goal = (over: Partial<GoalStep>): NewStep => ({
  ...{ kind: 'goal', name: '', when: { is: 'ordered' }, out: true },
  ...over,
})
/** Steps one behind the other, named by their place: s0, s1, …. */
const line = (...steps: NewStep[]) =>
  steps.reduce<SequenceMap>(
    (map, step, n) => insertStep(map, n ? `s${n - 1}` : null, `s${n}`, step),
    { ...emptyMap, start: { by: [], again: { is: 'never' }, rule: null, heldOut: 300 } },
  )

function starts(map: SequenceMap) {
  id = addSequence(db, 'For goals', list, 0)
  changeSequence(db, sequenceById(db, id)!, { name: 'For goals', listId: list, map }, 1)
  expect(startSequence(db, sequenceById(db, id)!, engine.time.now)).toBe(true)
}
/** So many come in, of whom those are given back who are not held out by lot. */
async function comeIn(many: number) {
  const all = Array.from({ length: many }, (_, n) =>
    somebody(db, `g${n}`, { list, now: engine.time.now }),
  )
  for (const person of all) enrolPerson(db, id, person, engine.time.now)
  await settle()
  return all.filter((person) => endOf(person).why !== HELD_OUT)
}
const endOf = (person: number) =>
  one(
    db,
    q
      .selectFrom('enrolments')
      .select(['state', 'why'])
      .where('sequence_id', '=', id)
      .where('person_id', '=', person),
  )!
const buys = (person_id: number, at: number) =>
  run(db, q.insertInto('orders').values({ person_id, number: `N${person_id}`, at, money: 4_000 }))
const does = (person_id: number, at: number, props: object = {}) =>
  run(
    db,
    q.insertInto('events').values({ person_id, name: 'booked', at, props: JSON.stringify(props) }),
  )
const tagsOf = (person: number) => everythingKnown(db, person)!.tags
const results = (days: number) =>
  sequenceResults(db, sequenceById(db, id)!, { days, which: everyRound }, engine.time.now)

test('a goal with a window counts what was done within it, also where it is looked at later, and nothing done after', async () => {
  starts(line(wait(10), tag('went by'), goal({ within: 3 })))
  const [early, edge, late] = (await comeIn(12)) as [number, number, number]
  const began = engine.time.now
  buys(early, began + 2 * DAY)
  buys(edge, began + 3 * DAY)
  buys(late, began + 5 * DAY)
  // Nobody looked for ten days.
  engine.time.now += 10 * DAY
  await settle()
  expect(endOf(early)).toMatchObject({ state: 'finished', why: 'goal' })
  expect(tagsOf(early)).toEqual([])
  for (const one of [edge, late]) expect(tagsOf(one)).toEqual(['went by'])
  const [of] = results(7).goals
  expect(of).toMatchObject({ step: 's2', days: 3, isForAll: true, led: { money: 4_000 } })
  expect(of!.led.reached.rate).toBeCloseTo(1 / of!.led.of)
  expect(of!.heldOut).toMatchObject({ of: 12 - of!.led.of, lift: { heldOut: 0 } })
})

test('who reached a goal goes a way of their own, where it has one', async () => {
  let map = line(wait(5), goal({ out: false, ways: [{ next: null }] }), tag('in vain'))
  map = insertStep(map, { step: 's1', way: 1 }, 'glad', tag('glad'))
  expect(readMap(JSON.parse(JSON.stringify(map)))).toEqual(map)
  expect(waysOf(map.steps.s1!).map(({ next }) => next)).toEqual(['s2', 'glad'])
  starts(map)
  const [one, other] = (await comeIn(6)) as [number, number]
  buys(one, engine.time.now + DAY)
  engine.time.now += 5 * DAY
  await settle()
  // Its way joins the main one where that led when the step was put on it: behind nothing else.
  expect(tagsOf(one)).toContain('glad')
  expect(tagsOf(other)).toEqual(['in vain'])
  expect(trafficOf(db, id).s1![1]).toBe(1)
  expect(removeStep(map, 's1').steps.glad).toBeUndefined()
})

test('each of several goals has its figures: an event by what it carried, at its worth, and one that only who is led can reach', async () => {
  const booked = { is: 'did' as const, event: 'booked' }
  const where = { property: 'kind', test: { is: 'equal' as const, text: 'pair' } }
  const fits = { kind: 'tagged' as const, tagId: tagNamed(db, 'glad') }
  const map = line(
    tag('glad'),
    wait(1),
    goal({ name: 'Glad', when: { is: 'fits', rule: fits }, out: false }),
    wait(8),
    goal({ name: 'A pair', when: { ...booked, where }, worth: 2_500 }),
  )
  const read = readMap(JSON.parse(JSON.stringify(map)))
  expect(read).not.toBeNull()
  starts(read!)
  const led = await comeIn(20)
  const began = engine.time.now
  does(led[0]!, began + DAY, { kind: 'pair' })
  does(led[1]!, began + DAY, { kind: 'one' })
  buys(led[2]!, began + DAY)
  for (const days of [1, 8]) {
    engine.time.now += days * DAY
    await settle()
  }
  const [glad, seats] = results(7).goals
  expect(glad).toMatchObject({ step: 's2', isForAll: false, heldOut: null })
  expect(glad!.led.reached.rate).toBe(1)
  expect(seats).toMatchObject({ step: 's4', isForAll: true, led: { money: 2_500 } })
  expect(seats!.led.reached.rate).toBeCloseTo(1 / led.length)
  expect(seats!.heldOut!.of).toBe(20 - led.length)
})

test('a map without a goal has orders for one', async () => {
  starts(line(tag('came')))
  const led = await comeIn(8)
  buys(led[0]!, engine.time.now + DAY)
  engine.time.now += 8 * DAY
  const { goals } = results(7)
  expect(goals).toHaveLength(1)
  expect(goals[0]).toMatchObject({ step: null, when: { is: 'ordered' }, led: { money: 4_000 } })
})

test.each([{ within: 0 }, { within: 366 }, { within: 1.5 }, { worth: -1 }, { worth: 'much' }])(
  'a goal with %j is none',
  (odd) => {
    expect(readMap(line(goal(odd as never)))).toBeNull()
  },
)
