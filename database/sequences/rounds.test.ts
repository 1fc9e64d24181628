import { beforeEach, expect, test } from 'vitest'
import {
  emptyMap,
  everyRound,
  insertStep,
  readRoundsAsked,
  ROUNDS_SHOWN,
  writeRoundsAsked,
  type RoundsAsked,
} from '../../core/sequences'
import { DAY } from '../../core/time'
import { madeUpAccount, somebody } from '../made-up'
import { tagNamed, tagPeople } from '../people'
import { q, run, type Database } from '../query'
import { HELD_OUT } from './entering'
import { addSequence, changeSequence, sequenceById } from './sequences'
import { isOneOf } from './which-rounds'
import { roundsBehind } from './rounds'

const now = Date.UTC(2026, 10, 23, 9)
let db: Database
let id: number
let people: number[]
const asked = (over: Partial<RoundsAsked>): RoundsAsked => ({
  ...{ stand: 'came', step: null, way: null, why: null, offset: 0 },
  ...over,
})
const behind = (over: Partial<RoundsAsked>, which = everyRound) =>
  roundsBehind(db, id, asked(over), isOneOf(db, which, now)).rounds.map(
    ({ person_id, round }) => `${people.indexOf(person_id)}.${round}`,
  )

beforeEach(() => {
  let list: number
  ;({ db, list } = madeUpAccount())
  people = Array.from({ length: 40 }, (_, n) => somebody(db, `r${n}`, { list }))
  id = addSequence(db, 'Looked at', list, 0)
  const map = insertStep(emptyMap, null, 'fork', {
    kind: 'fork',
    ways: [{ when: { is: 'ordered' }, next: null }],
  })
  changeSequence(db, sequenceById(db, id)!, { name: 'Looked at', listId: list, map }, 1)
})
type State = 'inside' | 'finished' | 'left'
function came(n: number, round: number, state: State, step: string, why: string | null = null) {
  const at = now - (40 - n) * DAY + round
  const of = { sequence_id: id, person_id: people[n]!, round, version: 1, step, state, why }
  const times = { due: at + DAY, arrived_at: at, entered_at: at, visit: 0 }
  const ended = state === 'inside' ? null : at + 1
  run(db, q.insertInto('enrolments').values({ ...of, ...times, ended_at: ended } as never))
}
const wentBy = (n: number, round: number, step: string, way: number) =>
  run(
    db,
    q.insertInto('sequence_trail').values({
      ...{ sequence_id: id, person_id: people[n]!, round, visit: 0, step, way, at: now },
    }),
  )

test('behind each figure stand its rounds, the latest first: who came, stands, finished, left by a reason, went by a way', () => {
  came(0, 0, 'finished', 'fork')
  came(0, 1, 'inside', 'fork')
  came(1, 0, 'inside', 'wait')
  came(2, 0, 'left', 'fork', 'unsubscribed')
  came(3, 0, 'left', 'fork', HELD_OUT)
  wentBy(0, 0, 'fork', 1)
  wentBy(2, 0, 'fork', 0)
  expect(behind({})).toEqual(['2.0', '1.0', '0.1', '0.0'])
  expect(behind({ stand: 'inside' })).toEqual(['1.0', '0.1'])
  expect(behind({ stand: 'inside', step: 'wait' })).toEqual(['1.0'])
  expect(behind({ stand: 'finished' })).toEqual(['0.0'])
  expect(behind({ stand: 'left' })).toEqual(['2.0'])
  expect(behind({ stand: 'left', why: 'unsubscribed' })).toEqual(['2.0'])
  expect(behind({ stand: 'left', why: HELD_OUT })).toEqual(['3.0'])
  expect(behind({ step: 'fork' })).toEqual(['2.0', '0.0'])
  expect(behind({ step: 'fork', way: 1 })).toEqual(['0.0'])
  expect(behind({ step: 'gone' })).toEqual([])
  // Of those who are looked at alone.
  tagPeople(db, [people[0]!], tagNamed(db, 'keen'), true)
  expect(behind({}, { ...everyRound, who: 'tagged "keen"' })).toEqual(['0.1', '0.0'])
  // Not of another sequence.
  expect(roundsBehind(db, id + 1, asked({}), isOneOf(db, everyRound, now)).rounds).toEqual([])
})

test('they come by pages, each once; somebody erased has no name', () => {
  for (const n of people.keys()) came(n, 0, 'inside', 'fork')
  const page = (offset: number) =>
    roundsBehind(db, id, asked({ offset }), isOneOf(db, everyRound, now))
  const [first, second] = [page(0), page(ROUNDS_SHOWN)]
  expect([first.more, second.more]).toEqual([true, false])
  const all = [...first.rounds, ...second.rounds]
  expect(new Set(all.map(({ person_id }) => person_id)).size).toBe(people.length)
  expect(all.map(({ entered_at }) => entered_at)).toEqual(
    all.map(({ entered_at }) => entered_at).toSorted((a, b) => b - a),
  )
  expect(all[0]).toMatchObject({ name: expect.stringContaining('r39') as string, state: 'inside' })
})

test('a figure stands in an address and is read from it; what is odd is none', () => {
  for (const one of [
    asked({}),
    asked({ stand: 'inside', step: 'wait-1' }),
    asked({ step: 'goal', way: 1, offset: 30 }),
    asked({ stand: 'left', why: 'out by rule' }),
  ]) {
    const words = Object.entries(writeRoundsAsked(one)).filter(([, value]) => value !== undefined)
    expect(readRoundsAsked(Object.fromEntries(words))).toEqual(one)
  }
  expect(readRoundsAsked({})).toBeNull()
  expect(readRoundsAsked({ of: 'gone' })).toBeNull()
  expect(readRoundsAsked({ of: 'came', step: '"; drop', way: '1', offset: '-1' })).toEqual(
    asked({}),
  )
  expect(readRoundsAsked({ of: 'finished', step: 'wait', why: 'x' })).toEqual(
    asked({ stand: 'finished' }),
  )
})
