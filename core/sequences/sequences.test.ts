import fc from 'fast-check'
import { expect, test } from 'vitest'
import {
  advance,
  BACK,
  branchAt,
  changeStep,
  emptyMap,
  enter,
  goesRound,
  insertStep,
  joinAt,
  joinsFor,
  layOut,
  mailingsOfMap,
  mapCautions,
  mapProblems,
  moveBranch,
  openFrom,
  officeHours,
  readMap,
  putBranch,
  removeStep,
  removeWay,
  renamedBranch,
  rulesOf,
  sideWay,
  stepsInOrder,
  waysOf,
  withRules,
  type Act,
  type ArrivalFacts,
  type Happening,
  type InsideFacts,
  type NewStep,
  type OpenHours,
  type SequenceMap,
  type Until,
  type WaitStep,
  type WayBack,
} from '.'

const HOUR = 3_600_000
const problems = (map: SequenceMap, list: number | null = 1) =>
  mapProblems(map, list).map(({ title }) => title)
const cautions = (map: SequenceMap) => mapCautions(map, '2026-11-12').map(({ title }) => title)
const arriving: ArrivalFacts = { zone: 'UTC', fieldOf: () => null, bestHour: () => 0 }
const DAY = 24 * HOUR
const share = fc.integer({ min: 1, max: 240 })
const mail = fc.record({
  kind: fc.constant('mail' as const),
  mailingId: fc.integer({ min: 1, max: 99 }),
})
const wait = fc.record({
  kind: fc.constant('wait' as const),
  ms: fc.integer({ min: 1, max: 90 * DAY }),
})
const happening = fc.constantFrom<Happening>({ is: 'ordered' }, { is: 'clicked', mail: null })
const step: fc.Arbitrary<NewStep> = fc.oneof(
  { weight: 3, arbitrary: mail },
  fc.record({
    kind: fc.constant('mail' as const),
    mailingId: fc.integer({ min: 1, max: 99 }),
    versions: fc
      .array(share, { minLength: 1, maxLength: 4 })
      .map((shares) => shares.map((one, n) => ({ mailingId: 100 + n, share: one }))),
  }),
  { weight: 2, arbitrary: wait },
  fc.record({
    kind: fc.constant('wait' as const),
    ms: fc.integer({ min: 1, max: 90 * DAY }),
    until: fc.constantFrom<Until>(
      { is: 'happens', what: { is: 'ordered' } },
      { is: 'happens', what: { is: 'clicked', mail: null } },
    ),
    ways: fc.constant<{ next: string | null }[]>([{ next: null }]),
  }),
  fc.record({
    kind: fc.constant('wait' as const),
    ms: fc.integer({ min: 1, max: 90 * DAY }),
    until: fc.constantFrom<Until>(
      { is: 'day', day: '2026-12-24', hour: 9 },
      { is: 'date', of: 'birthday', days: -3, hour: 18 },
    ),
  }),
  fc.record({
    kind: fc.constant('fork' as const),
    ways: fc.array(fc.record({ when: happening, next: fc.constant(null) }), {
      minLength: 1,
      maxLength: 3,
    }),
  }),
  fc.record({
    kind: fc.constant('split' as const),
    ways: fc.array(fc.record({ share, next: fc.constant(null) }), { minLength: 1, maxLength: 4 }),
  }),
  fc.record({
    kind: fc.constant('do' as const),
    acts: fc.constant<Act[]>([{ is: 'tag', tag: 'owner' }]),
  }),
)
/** Every way of a map, as a spot where something can be put. */
const spotsOf = (map: SequenceMap) => [
  { step: null, way: 0 },
  ...stepsInOrder(map).flatMap(({ id, step }) => waysOf(step).map((_, way) => ({ step: id, way }))),
]
/** Maps that were built step by step, each put in on some way. */
const mapOf = (steps: fc.Arbitrary<NewStep>, maxLength: number) =>
  fc.array(fc.tuple(steps, fc.nat()), { maxLength }).map((all) =>
    all.reduce<SequenceMap>((map, [one, where], n) => {
      const spots = spotsOf(map)
      return insertStep(map, spots[where % spots.length]!, `s${n}`, one)
    }, emptyMap),
  )
const someMap = mapOf(step, 14)
const someLine = mapOf(fc.oneof(mail, wait), 8)

/** The same maps, in which waits that last for a day or more go back. */
const goingBack = fc
  .tuple(someMap, fc.array(fc.nat(), { minLength: 1, maxLength: 20 }))
  .map(([map, some]): SequenceMap => {
    const order = stepsInOrder(map)
    const before = (n: number) => order.slice(0, n).map(({ id }) => id)
    const steps = order.map(({ id, step }, n) => {
      const lots = some[n % some.length]!
      const isBack = step.kind === 'wait' && !step.until && step.ms >= DAY && n > 0
      const to = before(n)[lots % Math.max(1, n)]!
      return [id, isBack ? { ...step, back: { to, times: 1 + (lots % 4) } } : step] as const
    })
    return { ...map, steps: { ...map.steps, ...Object.fromEntries(steps) } }
  })

const inside: InsideFacts = {
  ...{ subscribed: true, suppressed: false, pausedUntil: null, zone: 'UTC' },
  ...{ holds: () => false, lot: () => 0.5, sharesOf: () => null, fieldOf: () => null },
  bestHour: () => 0,
}

/** Everything that happens to somebody who is always seen to on time. */
function walk(map: SequenceMap, from: number, facts = inside) {
  const mails: { mailingId: number; at: number }[] = []
  const passed: string[] = []
  let place = enter(map, from, arriving)
  let ended = null
  let at = from
  while (place) {
    at = place.due
    const came = advance(map, place, facts, at)
    for (const effect of came.effects)
      if (effect.is === 'mail') mails.push({ mailingId: effect.mailingId, at })
    if (came.passed) passed.push(came.passed.step)
    ;({ next: place, ended } = came)
    if (passed.length > 1_000) throw new Error('It never ends.')
  }
  return { mails, passed, at, ended }
}

test('along a line everybody meets every step once, in its order, and takes as long as the waits together', () => {
  fc.assert(
    fc.property(someLine, fc.integer({ min: 0, max: 2e12 }), (map, from) => {
      const { mails, passed, at } = walk(map, from)
      const line = stepsInOrder(map)
      expect(passed).toEqual(line.map(({ id }) => id))
      expect(mails.map(({ mailingId }) => mailingId)).toEqual(mailingsOfMap(map))
      expect(at - from).toBe(
        line.reduce((sum, { step }) => sum + (step.kind === 'wait' ? step.ms : 0), 0),
      )
    }),
  )
})

test('on any map everybody finishes, by ways that are there, and no step is carried out twice', () => {
  fc.assert(
    fc.property(
      someMap,
      fc.infiniteStream(fc.boolean()),
      fc.double({ min: 0, max: 0.999, noNaN: true }),
      (map, says, lot) => {
        const facts = { ...inside, holds: () => says.next().value as boolean, lot: () => lot }
        const { passed, ended } = walk(map, 0, facts)
        expect(new Set(passed).size).toBe(passed.length)
        if (map.first === null) expect(ended).toBeNull()
        else expect(ended).toEqual({ state: 'finished', why: null })
        for (const [n, id] of passed.entries()) {
          const ways = waysOf(map.steps[id]!).map(({ next }) => next)
          expect(ways).toContain(passed[n + 1] ?? null)
        }
      },
    ),
  )
})

test('ways back end after so many times: everybody finishes, whatever happens, and waits a day between', () => {
  fc.assert(
    fc.property(
      goingBack,
      fc.infiniteStream(fc.boolean()),
      fc.double({ min: 0, max: 0.999, noNaN: true }),
      (map, says, lot) => {
        const went: Record<string, number> = {}
        const lastBack: Record<string, number> = {}
        const holds = () => says.next().value as boolean
        const facts = { ...inside, lot: () => lot, holds, wentBack: (id: string) => went[id] ?? 0 }
        let place = enter(map, 0, arriving)
        for (let n = 0; place; n++) {
          const { step, due } = place
          const { passed, next, ended } = advance(map, place, facts, due)
          const at = map.steps[step]!
          if (passed?.way === BACK && at.kind === 'wait' && at.back) {
            went[step] = (went[step] ?? 0) + 1
            expect(next!.step).toBe(at.back.to)
            expect(due - (lastBack[step] ?? -Infinity)).toBeGreaterThanOrEqual(DAY)
            lastBack[step] = due
          }
          if (ended) expect(ended).toEqual({ state: 'finished', why: null })
          place = next
          // Fourteen steps, each come by once more for every way back that is taken.
          expect(n).toBeLessThan(14 * (1 + 14 * 4))
        }
        for (const [id, times] of Object.entries(went)) {
          const step = map.steps[id] as WaitStep
          expect(times).toBeLessThanOrEqual(step.back!.times)
        }
        expect(goesRound(map)).toBe(false)
        expect(readMap(JSON.parse(JSON.stringify(map)))).toEqual(map)
      },
    ),
  )
})

test('a way back leads to a step before it, after a day at least, and is kept by copies', () => {
  let map = insertStep(emptyMap, null, 'hello', { kind: 'mail', mailingId: 1 })
  map = insertStep(map, 'hello', 'ask', {
    kind: 'fork',
    ways: [{ when: { is: 'ordered' }, next: null }],
  })
  map = insertStep(map, { step: 'ask', way: 0 }, 'week', {
    ...{ kind: 'wait', ms: 7 * DAY, back: { to: 'ask', times: 3 } },
  })
  map = insertStep(map, 'week', 'bye', { kind: 'mail', mailingId: 2 })
  map = joinAt(map, 'ask', 1, null)
  expect(problems(map)).toEqual([])
  expect(walk(map, 0, { ...inside, wentBack: () => 3 }).passed).toEqual([
    ...['hello', 'ask', 'week', 'bye'],
  ])
  const bad = (back: WayBack, ms = 7 * DAY) =>
    problems(changeStep(map, 'week', { kind: 'wait', ms, back, next: 'bye' }))
  const notBefore = ['A wait goes back to a step that does not stand before it.']
  for (const to of ['bye', 'week', 'gone']) expect(bad({ to, times: 1 })).toEqual(notBefore)
  expect(bad({ to: 'hello', times: 1 }, DAY - 1)).toEqual([
    'A wait goes back after less than a day: make it longer.',
  ])
  expect(problems(removeStep(map, 'ask'))).toEqual(notBefore)
  for (const back of [{ to: 'ask', times: 0 }, { to: 'ask', times: 53 }, { to: 7, times: 1 }, 4])
    expect(
      readMap({ ...map, steps: { ...map.steps, week: { ...map.steps.week, back } } }),
    ).toBeNull()
  // Waits for a day or for something to happen do not go back.
  const until = { is: 'day' as const, day: '2026-12-24', hour: 9 }
  const read = readMap({ ...map, steps: { ...map.steps, week: { ...map.steps.week, until } } })
  expect(read!.steps.week).not.toHaveProperty('back')
  const copied = renamedBranch(
    { id: 'ask', steps: { ask: map.steps.ask!, week: map.steps.week! } },
    (id) => `${id}-2`,
  )
  expect(copied.steps['week-2']).toMatchObject({ back: { to: 'ask-2', times: 3 } })
})

test('a step taken out again leaves the map as it was, and a map survives being stored', () => {
  fc.assert(
    fc.property(someMap, step, fc.nat(), (map, one, where) => {
      const spots = spotsOf(map)
      const wider = insertStep(map, spots[where % spots.length]!, 'new', one)
      expect(stepsInOrder(wider)).toHaveLength(stepsInOrder(map).length + 1)
      expect(goesRound(wider)).toBe(false)
      expect(removeStep(wider, 'new')).toEqual(map)
      expect(readMap(JSON.parse(JSON.stringify(wider)))).toEqual(wider)
    }),
  )
})

test('with a fork goes what only its side ways led to; the main way and what comes together stay', () => {
  let map = insertStep(emptyMap, null, 'end', { kind: 'mail', mailingId: 1 })
  const way = { when: { is: 'ordered' as const }, next: null }
  map = insertStep(map, null, 'fork', { kind: 'fork', ways: [way, way] })
  map = insertStep(map, { step: 'fork', way: 1 }, 'aside', { kind: 'mail', mailingId: 2 })
  map = insertStep(map, { step: 'fork', way: 2 }, 'apart', { kind: 'mail', mailingId: 3 })
  map = insertStep(map, { step: 'fork', way: 0 }, 'main', { kind: 'mail', mailingId: 4 })
  expect(stepsInOrder(map).map(({ id }) => id)).toEqual(['fork', 'main', 'aside', 'apart', 'end'])
  expect(Object.keys(removeStep(map, 'fork').steps).sort()).toEqual(['end', 'main'])
  const fewer = removeWay(map, 'fork', 1)
  expect(Object.keys(fewer.steps).sort()).toEqual(['apart', 'end', 'fork', 'main'])
  // A fork without a way is none.
  expect(removeWay(fewer, 'fork', 1)).toBe(fewer)
})

test('a side way comes together with the others where it is told to, with the steps it has for itself', () => {
  let map = insertStep(emptyMap, null, 'goal', {
    ...{ kind: 'goal', name: '', when: { is: 'ordered' }, out: true },
  })
  map = insertStep(map, null, 'one', { kind: 'mail', mailingId: 1 })
  map = insertStep(map, null, 'split', { kind: 'split', ways: [{ share: 500, next: null }] })
  expect(sideWay(map, 'split', 1)).toEqual({ steps: [], joins: 'one' })
  expect(joinsFor(map, 'split')).toEqual(['one', 'goal'])
  const past = joinAt(map, 'split', 1, 'goal')
  expect(sideWay(past, 'split', 1)).toEqual({ steps: [], joins: 'goal' })
  const other = insertStep(past, { step: 'split', way: 1 }, 'two', { kind: 'mail', mailingId: 2 })
  expect(sideWay(other, 'split', 1)).toEqual({ steps: ['two'], joins: 'goal' })
  const apart = joinAt(other, 'split', 1, null)
  expect(apart.steps.two).toMatchObject({ next: null })
  expect(walk(apart, 0, { ...inside, lot: () => 0 }).passed).toEqual(['split', 'two'])
  expect(joinAt(apart, 'split', 1, 'goal')).toEqual(other)
})

test('a step that is moved is where it was put, with its branch, and nothing else has changed its order', () => {
  fc.assert(
    fc.property(someMap, fc.nat(), fc.nat(), (map, which, where) => {
      const all = stepsInOrder(map)
      if (all.length === 0) return
      const { id } = all[which % all.length]!
      const spots = spotsOf(map)
      const spot = spots[where % spots.length]!
      const moved = moveBranch(map, id, spot)
      if (spot.step !== null && spot.step in branchAt(map, id).steps) {
        expect(moved).toBe(map)
        return
      }
      expect(Object.keys(moved.steps).sort()).toEqual(Object.keys(map.steps).sort())
      expect(goesRound(moved)).toBe(false)
      expect(stepsInOrder(moved)).toHaveLength(stepsInOrder(map).length)
      if (spot.step !== null) expect(waysOf(moved.steps[spot.step]!)[spot.way]!.next).toBe(id)
      expect(removeStep(moved, id)).toEqual(removeStep(map, id))
    }),
  )
})

test('a branch that is copied is put in whole, under other names, and what was there stays as it was', () => {
  fc.assert(
    fc.property(someMap, someMap, fc.nat(), fc.nat(), (from, to, which, where) => {
      const all = stepsInOrder(from)
      if (all.length === 0) return
      const branch = branchAt(from, all[which % all.length]!.id)
      const copy = renamedBranch(branch, (id) => `copy-${id}`)
      const spots = spotsOf(to)
      const map = putBranch(to, spots[where % spots.length]!, copy)
      expect(readMap(JSON.parse(JSON.stringify(map)))).toEqual(map)
      expect(goesRound(map)).toBe(false)
      const many = stepsInOrder(to).length + Object.keys(branch.steps).length
      expect(stepsInOrder(map)).toHaveLength(many)
      expect(removeStep(map, copy.id)).toEqual(to)
      expect(Object.keys(branchAt(map, copy.id).steps).sort()).toEqual(
        Object.keys(copy.steps).sort(),
      )
    }),
  )
})

test('a copied branch goes on where it was put, or to Finish past it, and asks for its own mails', () => {
  const mail = (mailingId: number) => ({ kind: 'mail' as const, mailingId })
  const clicked = { is: 'clicked' as const, mail: 'aside' }
  let map = insertStep(emptyMap, null, 'end', mail(1))
  map = insertStep(map, null, 'split', {
    kind: 'split',
    ways: [
      { share: 300, next: null },
      { share: 300, next: null },
    ],
  })
  map = insertStep(map, { step: 'split', way: 1 }, 'aside', mail(2))
  map = insertStep(map, { step: 'aside', way: 0 }, 'asks', {
    kind: 'fork',
    ways: [{ when: clicked, next: null }],
  })
  map = joinAt(map, 'split', 2, null)
  const copy = renamedBranch(branchAt(map, 'split'), (id) => `${id}-2`)
  const put = putBranch(map, { step: 'end', way: 0 }, copy)
  const waysAt = (id: string) => waysOf(put.steps[id]!).map(({ next }) => next)
  expect(Object.keys(copy.steps).sort()).toEqual(['aside-2', 'asks-2', 'split-2'])
  expect([waysAt('end'), waysAt('split-2')]).toEqual([['split-2'], [null, 'aside-2', null]])
  expect(put.steps['asks-2']).toMatchObject({ ways: [{ when: { mail: 'aside-2' } }] })
  const before = putBranch(map, { step: null, way: 0 }, copy)
  expect(waysOf(before.steps['split-2']!).map(({ next }) => next)).toEqual([
    ...['split', 'aside-2', null],
  ])
  expect(waysOf(before.steps['asks-2']!).map(({ next }) => next)).toEqual(['split', 'split'])
})

test('a note stays with its step, and is stored with it', () => {
  const map = insertStep(emptyMap, null, 'wait', { kind: 'wait', ms: DAY })
  const noted = changeStep(map, 'wait', { ...map.steps.wait!, note: 'Ask Wren.' })
  expect(readMap(JSON.parse(JSON.stringify(noted)))).toEqual(noted)
  const wrong = (note: unknown) => readMap({ ...map, steps: { wait: { ...map.steps.wait, note } } })
  expect([wrong(7), wrong('x'.repeat(501))]).toEqual([null, null])
})

test('who fits the rule by which people are out leaves before the next step, and before a goal', () => {
  const rule = { kind: 'all' as const, of: [] }
  const goal: NewStep = { kind: 'goal', name: '', when: { is: 'ordered' }, out: true }
  const line = insertStep(
    insertStep(emptyMap, null, 'wait', { kind: 'wait', ms: DAY }),
    'wait',
    'g',
    goal,
  )
  const map = readMap({ ...line, start: { ...line.start, out: rule } })!
  expect(map.start.out).toEqual(rule)
  expect(rulesOf(map)).toEqual([rule])
  const none = { kind: 'any' as const, of: [] }
  expect(withRules(map, () => none).start.out).toEqual(none)
  const place = { step: 'wait', due: DAY, arrived: 0, visit: 0 }
  const at = (holds: boolean) => advance(map, place, { ...inside, holds: () => holds }, DAY)
  expect(at(true)).toMatchObject({ ended: { state: 'left', why: 'out by rule' }, passed: null })
  expect(at(false).ended).toBeNull()
  expect(readMap({ ...line, start: { ...line.start, out: 'x' } })).toBeNull()
})

test('what is handed over, told and asked of an answer is read back as it was, and nothing else', () => {
  const hand: Act = {
    ...{ is: 'hand', url: 'https://desk.example/in', how: 'add' },
    fields: [{ as: 'Name', from: 'first_name' }],
  }
  const tell: Act = { is: 'tell', to: 'wren@galewright.example', text: 'Call them.' }
  const line = (acts: Act[], when: Happening) =>
    insertStep(insertStep(emptyMap, null, 'desk', { kind: 'do', acts }), 'desk', 'fork', {
      ...{ kind: 'fork', ways: [{ when, next: null }] },
    })
  const answered: Happening = { is: 'answered', step: 'desk', taken: false }
  const map = line([hand, tell], answered)
  expect(readMap(JSON.parse(JSON.stringify(map)))).toEqual(map)
  const lacks = (one: SequenceMap) => problems(one)
  expect(lacks(map)).toEqual([])
  expect(cautions(map)).toContainEqual(expect.stringContaining('Put a wait before it'))
  expect(lacks(line([tell], answered))).toEqual([
    'A fork asks for the answer to a hand-over that is not in it.',
  ])
  expect(
    lacks(
      line(
        [
          { ...hand, url: 'ftp://x' },
          { ...tell, to: '' },
        ],
        answered,
      ),
    ),
  ).toEqual([
    'The team is told by mail, and it is not said who, or what.',
    'People are handed over to another program, and its web address is missing.',
  ])
  const twice = [...hand.fields, { as: 'Name', from: 'last_name' }]
  expect(lacks(line([{ ...hand, fields: twice }], answered))).toEqual([
    'Two values are handed over under the same name.',
  ])
  const wrong = (over: object) => readMap(line([{ ...hand, ...over } as Act], answered))
  for (const over of [{ how: 'toString' }, { url: 7 }, { fields: {} }, { fields: [{ as: '' }] }])
    expect(wrong(over)).toBeNull()
  expect(readMap(line([hand], { ...answered, taken: 'yes' } as never))).toBeNull()
})

test('a rule that a wait is for is one of the rules of the map, and is changed with them', () => {
  const rule = { kind: 'segment' as const, segmentId: 4 }
  const until = { is: 'happens' as const, what: { is: 'fits' as const, rule } }
  const map = insertStep(emptyMap, null, 'wait', {
    ...{ kind: 'wait', ms: DAY, until, ways: [{ next: null }] },
  })
  expect(rulesOf(map)).toEqual([rule])
  const other = { kind: 'segment' as const, segmentId: 9 }
  expect(rulesOf(withRules(map, () => other))).toEqual([other])
})

test('what is no map is not read as one', () => {
  fc.assert(
    fc.property(fc.jsonValue(), (json) => {
      const map = readMap(json)
      if (map) expect(readMap(JSON.parse(JSON.stringify(map)))).toEqual(map)
    }),
  )
  const wait = { kind: 'wait', ms: 5, next: null }
  const start = { by: [{ is: 'joined' }], rule: null }
  const read = (step: object) => readMap({ start, first: 'a', steps: { a: step } })
  expect(read(wait)).not.toBeNull()
  expect(readMap({ start, first: 'b', steps: { a: wait } })).toBeNull()
  expect(read({ ...wait, next: 'b' })).toBeNull()
  expect(read({ ...wait, ms: 0 })).toBeNull()
  expect(read({ ...wait, hours: { days: [1], from: 600, to: 500 } })).toBeNull()
  expect(read({ ...wait, until: { is: 'happens', what: { is: 'ordered' } } })).toBeNull()
  const fits = { is: 'fits', rule: { kind: 'any', of: [] } }
  expect(read({ ...wait, until: { is: 'happens', what: fits }, ways: [{}] })).toBeNull()
  expect(read({ ...wait, until: { is: 'day', day: '2026-02-30', hour: 9 } })).toBeNull()
  expect(read({ kind: 'fork', ways: [], next: null })).toBeNull()
  expect(read({ kind: 'fork', ways: [{ when: { is: 'ordered' }, next: 'b' }] })).toBeNull()
  expect(read({ kind: 'split', ways: [{ share: 600 }, { share: 400 }] })).toBeNull()
  expect(read({ kind: 'do', acts: [{ is: 'erase' }] })).toBeNull()
  expect(read({ kind: 'constructor', next: null })).toBeNull()
  expect(readMap({ start: { ...start, rule: { kind: 'x' } }, first: null, steps: {} })).toBeNull()
  const starts = (by: unknown, again?: unknown) =>
    readMap({ start: { by, again, rule: null }, first: null, steps: {} })?.start
  expect(starts([{ is: 'date', of: 'birthday', days: 400, hour: 9 }])).toBeUndefined()
  expect(starts([{ is: 'left behind', name: 'basket', within: 5 }])).toBeUndefined()
  expect(starts([{ is: 'constructor' }])).toBeUndefined()
  expect(starts('joined')).toBeUndefined()
  expect(starts([], { is: 'days', days: 0 })).toBeUndefined()
  expect(starts([], { is: 'each' })?.again).toEqual({ is: 'each' })
  // As they were kept when there was one start alone.
  const old = {
    start: { when: { is: 'event', name: 'basket' }, rule: null },
    first: null,
    steps: {},
  }
  expect(readMap(old)?.start).toEqual({
    ...{ by: [{ is: 'event', name: 'basket' }], again: { is: 'never' }, rule: null },
  })
})

test('who is unsubscribed or suppressed leaves before anything is done', () => {
  const map = insertStep(emptyMap, null, 'hello', { kind: 'mail', mailingId: 7 })
  const place = enter(map, 0, arriving)!
  expect(advance(map, place, inside, 0)).toEqual({
    effects: [{ is: 'mail', mailingId: 7 }],
    next: null,
    ended: { state: 'finished', why: null },
    passed: { step: 'hello', way: 0 },
  })
  expect(advance(map, place, { ...inside, subscribed: false }, 0)).toMatchObject({
    effects: [],
    ended: { state: 'left', why: 'unsubscribed' },
  })
  expect(advance(map, place, { ...inside, suppressed: true }, 0)).toMatchObject({
    effects: [],
    ended: { state: 'left', why: 'suppressed' },
  })
  expect(advance(emptyMap, place, inside, 0)).toMatchObject({
    effects: [],
    ended: { state: 'left', why: 'the step is gone' },
  })
  expect(enter(emptyMap, 0, arriving)).toBeNull()
  const paused = advance(map, place, { ...inside, pausedUntil: 9 }, 0)
  expect(paused).toEqual({ effects: [], next: { ...place, due: 9 }, ended: null, passed: null })
})

test('who comes late to a wait waits from when they came, not from when they should have', () => {
  let map = insertStep(emptyMap, null, 'hello', { kind: 'mail', mailingId: 7 })
  map = insertStep(map, 'hello', 'pause', { kind: 'wait', ms: HOUR })
  const late = advance(map, enter(map, 0, arriving)!, inside, 5 * HOUR)
  expect(late.next).toEqual({ step: 'pause', due: 6 * HOUR, arrived: 5 * HOUR, visit: 1 })
})

test('a wait with hours ends at the next moment within them, by the clock of the zone', () => {
  const friday = Date.UTC(2026, 10, 27, 17)
  // London in November is as UTC.
  expect(openFrom(friday, officeHours, 'Europe/London')).toBe(friday)
  expect(openFrom(friday + 2 * HOUR, officeHours, 'Europe/London')).toBe(Date.UTC(2026, 10, 30, 8))
  expect(openFrom(Date.UTC(2026, 10, 30, 3), officeHours, 'Europe/London')).toBe(
    Date.UTC(2026, 10, 30, 8),
  )
  // On the days on which the clocks change, eight is eight, and what is missing is the next that there is.
  const sunday = { days: [0], from: 8 * 60, to: 24 * 60 }
  expect(openFrom(Date.UTC(2026, 2, 28, 12), sunday, 'Europe/London')).toBe(
    Date.UTC(2026, 2, 29, 7),
  )
  expect(openFrom(Date.UTC(2026, 9, 24, 12), sunday, 'Europe/London')).toBe(
    Date.UTC(2026, 9, 25, 8),
  )
  const missing = { days: [0], from: 90, to: 24 * 60 }
  expect(openFrom(Date.UTC(2026, 2, 28, 12), missing, 'Europe/London')).toBe(
    Date.UTC(2026, 2, 29, 1),
  )
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 4e12 }), (at) => {
      const then = openFrom(at, officeHours, 'America/New_York')
      expect(then).toBeGreaterThanOrEqual(at)
      expect(openFrom(then, officeHours, 'America/New_York')).toBe(then)
      expect(then - at).toBeLessThan(4 * DAY)
    }),
  )
})

test('the first way that holds is taken, and everyone else’s where none does', () => {
  let map = insertStep(emptyMap, null, 'fork', {
    kind: 'fork',
    ways: [
      { when: { is: 'clicked', mail: null }, next: null },
      { when: { is: 'ordered' }, next: null },
    ],
  })
  for (const way of [0, 1, 2])
    map = insertStep(map, { step: 'fork', way }, `way${way}`, { kind: 'mail', mailingId: way + 1 })
  const taken = (holds: InsideFacts['holds']) => walk(map, 0, { ...inside, holds }).passed[1]
  expect(taken(() => false)).toBe('way0')
  expect(taken(() => true)).toBe('way1')
  expect(taken(({ is }) => is === 'ordered')).toBe('way2')
})

test('a split is as wide as it says', () => {
  fc.assert(
    fc.property(fc.array(share, { minLength: 1, maxLength: 4 }), (shares) => {
      const map = insertStep(emptyMap, null, 'split', {
        kind: 'split',
        ways: shares.map((one) => ({ share: one, next: null })),
      })
      const counts = new Array<number>(shares.length + 1).fill(0)
      const place = enter(map, 0, arriving)!
      for (let n = 0; n < 1_000; n++)
        counts[advance(map, place, { ...inside, lot: () => (n + 0.5) / 1_000 }, 0).passed!.way]!++
      expect(counts.slice(1)).toEqual(shares)
    }),
  )
})

test('who reaches a goal that is ahead of them comes to it at once, and out by it or on behind it', () => {
  const build = (out: boolean) => {
    let map = insertStep(emptyMap, null, 'hello', { kind: 'mail', mailingId: 1 })
    const goal = { kind: 'goal' as const, name: 'bought', when: { is: 'ordered' as const }, out }
    map = insertStep(map, 'hello', 'goal', goal)
    map = insertStep(map, 'hello', 'again', { kind: 'mail', mailingId: 2 })
    return insertStep(map, 'goal', 'thanks', { kind: 'mail', mailingId: 3 })
  }
  const reached = { ...inside, holds: () => true }
  const place = { step: 'again', due: 0, arrived: 0, visit: 1 }
  expect(advance(build(true), place, reached, 5)).toEqual({
    effects: [],
    next: null,
    ended: { state: 'finished', why: 'goal' },
    passed: { step: 'goal', way: 1 },
  })
  expect(advance(build(false), place, reached, 5)).toMatchObject({
    effects: [],
    next: { step: 'thanks', due: 5 },
    passed: { step: 'goal', way: 1 },
  })
  // Behind it, it is a goal no more; and who has not reached it goes by.
  expect(advance(build(true), { ...place, step: 'thanks' }, reached, 5).effects).toHaveLength(1)
  expect(walk(build(true), 0).passed).toEqual(['hello', 'again', 'goal', 'thanks'])
})

const waitsFor = (over: Partial<WaitStep>, facts: Partial<InsideFacts> = {}) => {
  const step = { kind: 'wait' as const, ms: 3 * DAY, ...over }
  const map = insertStep(emptyMap, null, 'wait', step)
  const all = { ...inside, ...facts }
  return { map, all, place: enter(map, DAY, all)! }
}
const untilOrder = {
  until: { is: 'happens' as const, what: { is: 'ordered' as const } },
  ways: [{ next: null }],
}

test('who waits for something goes on when it happens, and by the other way when the time is over', () => {
  const { map, all, place } = waitsFor(untilOrder)
  expect(place).toEqual({ step: 'wait', due: DAY, arrived: DAY, visit: 0 })
  const looked = advance(map, place, all, DAY)
  expect(looked).toMatchObject({ next: { due: 4 * DAY, arrived: DAY, visit: 0 }, passed: null })
  // Woken by something else, they stay for as long as before.
  expect(advance(map, { ...looked.next!, due: 2 * DAY }, all, 2 * DAY)).toEqual(looked)
  const did = { ...all, holds: () => true }
  expect(advance(map, looked.next!, did, 2 * DAY).passed).toEqual({ step: 'wait', way: 0 })
  expect(advance(map, looked.next!, all, 4 * DAY).passed).toEqual({ step: 'wait', way: 1 })
  const before = waitsFor(untilOrder, { holds: () => true })
  expect(advance(before.map, before.place, before.all, DAY).passed).toMatchObject({ way: 0 })
})

test('what happens at night is gone on from in the morning', () => {
  const { map, all, place } = waitsFor({
    ...untilOrder,
    hours: { days: [0, 1, 2, 3, 4, 5, 6], from: 480, to: 1080 },
  })
  const at = 2 * DAY + 22 * HOUR
  const stays = advance(map, place, { ...all, holds: () => true }, at)
  expect(stays.next).toMatchObject({ due: 3 * DAY + 8 * HOUR })
})

test('a day, and a date of theirs, are waited for; what is past or not known is not', () => {
  const due = (until: Until, fieldOf: InsideFacts['fieldOf'] = () => null) =>
    waitsFor({ until }, { fieldOf }).place.due
  expect(due({ is: 'day', day: '1970-01-05', hour: 9 })).toBe(4 * DAY + 9 * HOUR)
  expect(due({ is: 'day', day: '1970-01-01', hour: 9 })).toBe(DAY)
  const course = { is: 'date' as const, of: 'course', days: -1, hour: 9 }
  expect(due(course, (key) => (key === 'course' ? '1970-01-05' : null))).toBe(3 * DAY + 9 * HOUR)
  expect(due(course)).toBe(DAY)
  expect(due(course, () => '1970-01-02')).toBe(DAY)
})

test('days and hours are those of the reader’s own clock where that is asked, and the account’s for who has none', () => {
  const hours: OpenHours = { days: [0, 1, 2, 3, 4, 5, 6], from: 480, to: 1080 }
  const due = (over: Partial<WaitStep>, zone: unknown) =>
    waitsFor(
      { clock: 'time_zone', ...over },
      { fieldOf: (key) => (key === 'time_zone' ? zone : '1970-01-05') },
    ).place.due
  const day: Partial<WaitStep> = { until: { is: 'day', day: '1970-01-05', hour: 9 } }
  expect(due(day, 'Asia/Tokyo')).toBe(4 * DAY)
  expect(due(day, 'Mars/Olympus')).toBe(4 * DAY + 9 * HOUR)
  const birthday: Partial<WaitStep> = { until: { is: 'date', of: 'born', days: 0, hour: 9 } }
  expect(due(birthday, 'America/New_York')).toBe(4 * DAY + 14 * HOUR)
  const short: Partial<WaitStep> = { ms: HOUR, hours }
  expect([due(short, 'Asia/Tokyo'), due(short, undefined), due(short, 7)]).toEqual([
    DAY + HOUR,
    DAY + 8 * HOUR,
    DAY + 8 * HOUR,
  ])
})

test('who waits for their best hour goes on in it, on the days and within the hours that are named', () => {
  const due = (over: Partial<WaitStep>, hour: number, facts: Partial<InsideFacts> = {}) =>
    waitsFor({ ms: HOUR, best: true, ...over }, { bestHour: () => hour, ...facts }).place.due
  // They come at midnight and wait for an hour.
  expect([due({}, 20), due({}, 1), due({}, 0)]).toEqual([DAY + 20 * HOUR, DAY + HOUR, 2 * DAY])
  // 2 January 1970 is a Friday.
  const mondays: OpenHours = { days: [1], from: 9 * 60, to: 17 * 60 }
  const at = (hour: number) => due({ hours: mondays }, hour) - 4 * DAY
  expect([at(20), at(12), at(3)]).toEqual([16 * HOUR, 12 * HOUR, 9 * HOUR])
  const short = { ...mondays, to: 9 * 60 + 20 }
  expect(due({ hours: short }, 20)).toBe(4 * DAY + 9 * HOUR)
  // A day they wait for is that day, whatever its hour says.
  expect(due({ until: { is: 'day', day: '1970-01-05', hour: 23 } }, 7)).toBe(4 * DAY + 7 * HOUR)
  // By their clock their best hour is asked by it, too.
  const zones: string[] = []
  const asked = due({ clock: 'zone' }, 20, {
    fieldOf: () => 'Asia/Tokyo',
    bestHour: (zone) => (zones.push(zone), 20),
  })
  expect([asked, zones[0]]).toEqual([DAY + 11 * HOUR, 'Asia/Tokyo'])
  const late = { ...untilOrder, best: true as const }
  const { map, all, place } = waitsFor(late, { bestHour: () => 6 })
  expect(advance(map, place, all, DAY).next).toMatchObject({ due: 4 * DAY + 6 * HOUR })
})

test('a wait that waits for nothing any more has no other way', () => {
  let map = insertStep(emptyMap, null, 'wait', { kind: 'wait', ms: 5, ...untilOrder })
  map = insertStep(map, { step: 'wait', way: 1 }, 'late', { kind: 'mail', mailingId: 1 })
  map = insertStep(map, 'wait', 'thanks', { kind: 'mail', mailingId: 2 })
  const changed = changeStep(map, 'wait', { kind: 'wait', ms: 5, next: 'thanks' })
  expect(Object.keys(changed.steps).sort()).toEqual(['thanks', 'wait'])
})

test('a map is laid out from top to bottom, everything in a place of its own', () => {
  fc.assert(
    fc.property(someMap, (map) => {
      const { stops, edges, columns, rows } = layOut(map)
      const cells = new Set(stops.map(({ column, row }) => `${column} ${row}`))
      expect(cells.size).toBe(stops.length)
      expect(stops).toHaveLength(stepsInOrder(map).length + 2)
      expect(Math.max(...stops.map(({ column }) => column))).toBeLessThan(columns)
      expect(Math.max(...stops.map(({ row }) => row))).toBe(rows - 1)
      const at = new Map(stops.map((stop) => [stop.id, stop]))
      // Nor do two ways turn into one lane at one height.
      const turns = new Set(edges.map(({ from, lane }) => `${at.get(from)!.row} ${lane}`))
      expect(turns.size).toBe(edges.length)
      for (const { from, to, lane } of edges) {
        const [above, below] = [at.get(from)!, at.get(to)!]
        expect(above.row).toBeLessThan(below.row)
        // Nothing else stands in the lane between the two.
        for (const { id, column, row } of stops)
          if (id !== from && id !== to && column === lane)
            expect(row <= above.row || row >= below.row).toBe(true)
      }
    }),
    { numRuns: 400 },
  )
})

test('what a sequence lacks is said in sentences, and what may not be meant', () => {
  expect(problems(emptyMap, null)).toEqual([
    'Choose the list on whose behalf it writes.',
    'There is no mail in it yet.',
  ])
  const mail = insertStep(emptyMap, null, 'hello', { kind: 'mail', mailingId: 7 })
  expect(problems(mail)).toEqual([])
  expect(problems(insertStep(mail, 'hello', 'w', { kind: 'wait', ms: 5 }))).toEqual([
    'A last wait has nothing behind it. Remove it, or put a mail behind it.',
  ])
  const round = { ...mail, steps: { hello: { ...mail.steps.hello!, next: 'hello' } } }
  expect(problems(round)).toEqual(['It goes round in a circle: nobody would ever finish.'])
  const lost = {
    ...mail,
    steps: { ...mail.steps, aside: { kind: 'mail' as const, mailingId: 8, next: null } },
  }
  expect(problems(lost)).toEqual(['One step is never reached.'])
  expect(problems(insertStep(mail, 'hello', 'd', { kind: 'do', acts: [] }))).toEqual([
    'A step that is to do something does nothing yet.',
  ])
  const asks = (when: Happening) =>
    problems(insertStep(mail, 'hello', 'f', { kind: 'fork', ways: [{ when, next: null }] }))
  expect(asks({ is: 'clicked', mail: 'hello' })).toEqual([])
  expect(asks({ is: 'clicked', mail: 'gone' })).toEqual([
    'A fork asks for a mail that is not in it any more.',
  ])
  expect(asks({ is: 'did', event: ' ' })).toEqual([
    'A fork asks for an event and does not say which.',
  ])
  expect(asks({ is: 'fits', rule: { kind: 'any', of: [] } })).toEqual([
    'A fork asks for a segment and does not say which.',
  ])
  expect(cautions(mail)).toEqual([])
  const two = insertStep(mail, 'hello', 'next', { kind: 'mail', mailingId: 8 })
  expect(cautions(two)).toEqual(['A mail is followed by another within a day.'])
  expect(cautions(insertStep(two, 'hello', 'w', { kind: 'wait', ms: DAY }))).toEqual([])
  const forked = insertStep(mail, 'hello', 'fork', {
    kind: 'fork',
    ways: [{ when: { is: 'ordered' }, next: null }],
  })
  expect(cautions(forked)).toEqual(['All ways of a fork lead to the same step.'])
  const reached = { kind: 'goal' as const, name: '', when: { is: 'ordered' as const }, out: false }
  const own = insertStep(mail, 'hello', 'goal', { ...reached, ways: [{ next: null }] })
  expect(cautions(own)).toEqual(['All ways of a goal lead to the same step.'])
})

test('a mail waits for room, is left out, or goes out all the same; who paused theirs is never mailed', () => {
  const NOW = 1_000 * DAY
  const room = NOW + 5 * DAY
  const walks = (more: object, facts: Partial<InsideFacts> = {}, now = NOW) => {
    const map = insertStep(emptyMap, null, 'mail', { kind: 'mail', mailingId: 7, ...more })
    const place = { step: 'mail', due: now, arrived: NOW, visit: 0 }
    const { effects, next, ended } = advance(
      map,
      place,
      { ...inside, roomFrom: () => room, ...facts },
      now,
    )
    return next ? next.due : [effects.length, ended?.state]
  }
  expect(walks({})).toEqual([1, 'finished'])
  expect(walks({ full: 'skip' })).toEqual([0, 'finished'])
  expect(walks({ full: { waitDays: 9 } })).toBe(room)
  expect(walks({ full: { waitDays: 2 } })).toBe(NOW + 2 * DAY)
  // Two days are over, and there is no room yet: it goes out.
  expect(walks({ full: { waitDays: 2 } }, {}, NOW + 2 * DAY)).toEqual([1, 'finished'])
  expect(walks({ full: { waitDays: 9 } }, { roomFrom: () => NOW })).toEqual([1, 'finished'])
  const paused = { pausedUntil: NOW + DAY }
  for (const full of [undefined, 'skip', { waitDays: 2 }])
    expect(walks({ full }, paused)).toBe(NOW + DAY)
  expect(walks({ paused: 'skip' }, paused)).toEqual([0, 'finished'])
  // In quiet hours it waits for their end, unless it is told otherwise; who waited for room waits for that, too.
  const quiet = { quietUntil: () => NOW + DAY / 2, roomFrom: () => NOW }
  expect(walks({}, quiet)).toBe(NOW + DAY / 2)
  expect(walks({ quiet: 'skip' }, quiet)).toEqual([0, 'finished'])
  expect(walks({ quiet: 'past' }, quiet)).toEqual([1, 'finished'])
  expect(walks({ full: { waitDays: 9 } }, quiet)).toBe(NOW + DAY / 2)
  expect(walks({}, { quietUntil: () => NOW })).toEqual([1, 'finished'])
  for (const bad of [
    ...[{ full: 'past' }, { full: { waitDays: 0 } }, { paused: 'past' }],
    { quiet: 'wait' },
  ])
    expect(
      readMap({
        ...emptyMap,
        first: 'm',
        steps: { m: { kind: 'mail', mailingId: 7, next: null, ...bad } },
      }),
    ).toBeNull()
})
