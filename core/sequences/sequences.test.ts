import fc from 'fast-check'
import { expect, test } from 'vitest'
import {
  advance,
  emptyMap,
  enter,
  insertStep,
  lineOf,
  mailingsOfMap,
  mapProblems,
  readMap,
  removeStep,
  type SequenceMap,
} from '.'

const HOUR = 3_600_000
const step = fc.oneof(
  fc.record({ kind: fc.constant('mail' as const), mailingId: fc.integer({ min: 1, max: 99 }) }),
  fc.record({
    kind: fc.constant('wait' as const),
    ms: fc.integer({ min: 1, max: 90 * 24 * HOUR }),
  }),
)
/** Lines that were built step by step, each put in at some place. */
const someMap = fc.array(fc.tuple(step, fc.nat()), { maxLength: 8 }).map((steps) =>
  steps.reduce<SequenceMap>((map, [one, where], n) => {
    const line = lineOf(map)
    const after = line.length
      ? [null, ...line.map(({ id }) => id)][where % (line.length + 1)]!
      : null
    return insertStep(map, after, `s${n}`, one)
  }, emptyMap),
)
const inside = { subscribed: true, suppressed: false, pausedUntil: null }

/** Everything that happens to somebody who is always seen to on time. */
function walk(map: SequenceMap, from: number) {
  const mails: { mailingId: number; at: number }[] = []
  let place = enter(map, from)
  let steps = 0
  let at = from
  while (place) {
    at = place.due
    const { effects, next } = advance(map, place, inside, at)
    mails.push(...effects.map(({ mailingId }) => ({ mailingId, at })))
    place = next
    if (++steps > 1_000) throw new Error('It never ends.')
  }
  return { mails, steps, at }
}

test('whoever comes in meets every step once, in its order, and takes as long as the waits together', () => {
  fc.assert(
    fc.property(someMap, fc.integer({ min: 0, max: 2e12 }), (map, from) => {
      const { mails, steps, at } = walk(map, from)
      const line = lineOf(map)
      expect(steps).toBe(line.length)
      expect(mails.map(({ mailingId }) => mailingId)).toEqual(mailingsOfMap(map))
      expect(at - from).toBe(
        line.reduce((sum, { step }) => sum + (step.kind === 'wait' ? step.ms : 0), 0),
      )
    }),
  )
})

test('a step taken out again leaves the map as it was, and a map survives being stored', () => {
  fc.assert(
    fc.property(someMap, step, fc.nat(), (map, one, where) => {
      const places = [null, ...lineOf(map).map(({ id }) => id)]
      const wider = insertStep(map, places[where % places.length]!, 'new', one)
      expect(lineOf(wider)).toHaveLength(lineOf(map).length + 1)
      expect(removeStep(wider, 'new')).toEqual(map)
      expect(readMap(JSON.parse(JSON.stringify(wider)))).toEqual(wider)
    }),
  )
})

test('what is no map is not read as one', () => {
  fc.assert(
    fc.property(fc.jsonValue(), (json) => {
      const map = readMap(json)
      if (map) expect(readMap(JSON.parse(JSON.stringify(map)))).toEqual(map)
    }),
  )
  const wait = { kind: 'wait', ms: 5, next: null }
  const start = { when: { is: 'joined' }, rule: null }
  expect(readMap({ start, first: 'a', steps: { a: wait } })).not.toBeNull()
  expect(readMap({ start, first: 'b', steps: { a: wait } })).toBeNull()
  expect(readMap({ start, first: 'a', steps: { a: { ...wait, next: 'b' } } })).toBeNull()
  expect(readMap({ start, first: 'a', steps: { a: { ...wait, ms: 0 } } })).toBeNull()
  expect(readMap({ start: { ...start, rule: { kind: 'x' } }, first: null, steps: {} })).toBeNull()
  expect(
    readMap({ start: { when: { is: 'event', name: ' ' }, rule: null }, first: null, steps: {} }),
  ).toBeNull()
})

test('who is unsubscribed or suppressed leaves before anything is done', () => {
  const map = insertStep(emptyMap, null, 'hello', { kind: 'mail', mailingId: 7 })
  const place = enter(map, 0)!
  expect(advance(map, place, inside, 0)).toEqual({
    effects: [{ is: 'mail', mailingId: 7 }],
    next: null,
    ended: { state: 'finished', why: null },
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
  expect(enter(emptyMap, 0)).toBeNull()
})

test('who comes late to a wait waits from when they came, not from when they should have', () => {
  let map = insertStep(emptyMap, null, 'hello', { kind: 'mail', mailingId: 7 })
  map = insertStep(map, 'hello', 'pause', { kind: 'wait', ms: HOUR })
  const late = advance(map, enter(map, 0)!, inside, 5 * HOUR)
  expect(late.next).toEqual({ step: 'pause', due: 6 * HOUR, visit: 1 })
})

test('what a sequence lacks is said in sentences', () => {
  expect(mapProblems(emptyMap, null)).toEqual([
    'Choose the list on whose behalf it writes.',
    'There is no mail in it yet.',
  ])
  const mail = insertStep(emptyMap, null, 'hello', { kind: 'mail', mailingId: 7 })
  expect(mapProblems(mail, 1)).toEqual([])
  expect(mapProblems(insertStep(mail, 'hello', 'w', { kind: 'wait', ms: 5 }), 1)).toEqual([
    'The last wait has nothing behind it. Remove it, or put a mail behind it.',
  ])
  const round = { ...mail, steps: { hello: { ...mail.steps.hello!, next: 'hello' } } }
  expect(mapProblems(round, 1)).toEqual(['It goes round in a circle: nobody would ever finish.'])
  const lost = {
    ...mail,
    steps: { ...mail.steps, aside: { kind: 'mail' as const, mailingId: 8, next: null } },
  }
  expect(mapProblems(lost, 1)).toEqual(['One step is never reached.'])
})
