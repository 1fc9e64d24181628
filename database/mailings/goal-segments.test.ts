import { beforeEach, expect, test } from 'vitest'
import { plainPlan, type Goal } from '../../core/dispatch'
import { DAY, HOUR } from '../../core/time'
import { goalCounts } from '../results'
import { goalsToWatch, noteGoalHits, noteGoalStarts } from './goal-segments'
import { madeUpAccount, mailingOnItsWay, somebody } from '../made-up'
import { mailingById, updateMailing } from './mailings'
import { mergePeople, tagPeople } from '../people'
import { q, run, type Database } from '../query'
import { addSegment, deleteSegment, usesOfSegment } from '../segments'

const at = Date.UTC(2026, 10, 23, 9)
let db: Database
let people: number[]
let tag: number
let segment: number
let mailing: number

beforeEach(() => {
  let list: number
  ;({ db, list } = madeUpAccount())
  people = ['a', 'b', 'c', 'd'].map((name) => somebody(db, name, { list }))
  tag = run(db, q.insertInto('tags').values({ name: 'owner' })).id
  segment = addSegment(db, 'Owners', { kind: 'tagged', tagId: tag }, 0)
  mailing = mailingOnItsWay(db, list, { now: at })
})
const found = () => mailingById(db, mailing)!
function begin(is: 'enters' | 'leaves', days = 2): Goal {
  const goal: Goal = { is, what: String(segment), days }
  updateMailing(db, mailing, { plan: JSON.stringify({ ...plainPlan, goal }) })
  tagPeople(db, people.slice(0, 2), tag, true)
  noteGoalStarts(db, found(), 0, at)
  run(db, q.updateTable('recipients').set({ state: 'accepted', accepted_at: at }))
  return goal
}

test('who comes in afterwards has reached it; who was in it before has not', () => {
  const goal = begin('enters')
  expect(noteGoalHits(db, found(), at + HOUR)).toBe(0)
  tagPeople(db, [people[2]!], tag, true)
  expect(noteGoalHits(db, found(), at + 2 * HOUR)).toBe(1)
  expect(noteGoalHits(db, found(), at + 3 * HOUR)).toBe(0)
  expect(goalCounts(db, found(), goal).mailed).toEqual({ hits: 1, of: 4 })
})

test('who leaves has reached it, and stays so', () => {
  const goal = begin('leaves')
  tagPeople(db, [people[0]!, people[2]!], tag, false)
  expect(noteGoalHits(db, found(), at + HOUR)).toBe(1)
  tagPeople(db, [people[0]!], tag, true)
  noteGoalHits(db, found(), at + 2 * HOUR)
  expect(goalCounts(db, found(), goal).mailed.hits).toBe(1)
})

test('after its days it is too late, and nobody looks any more', () => {
  begin('enters', 1)
  run(db, q.updateTable('mailings').set({ state: 'sent', finished_at: at + HOUR }))
  expect(goalsToWatch(db, at + DAY).map(({ id }) => id)).toEqual([mailing])
  tagPeople(db, [people[3]!], tag, true)
  expect(noteGoalHits(db, found(), at + DAY + 1)).toBe(0)
  expect(goalsToWatch(db, at + 3 * DAY)).toEqual([])
})

test('those held out are watched, too; whoever is merged takes it along; a segment that is gone is reached by nobody', () => {
  const goal = begin('enters')
  run(db, q.deleteFrom('recipients').where('person_id', '=', people[3]!))
  run(
    db,
    q.insertInto('holdouts').values({ mailing_id: mailing, person_id: people[3]!, at, part: 0 }),
  )
  tagPeople(db, [people[2]!, people[3]!], tag, true)
  noteGoalHits(db, found(), at + HOUR)
  expect(goalCounts(db, found(), goal)).toEqual({
    mailed: { hits: 1, of: 3 },
    heldOut: { hits: 1, of: 1 },
  })
  mergePeople(db, people[1]!, people[2]!, at + HOUR)
  expect(goalCounts(db, found(), goal).mailed).toEqual({ hits: 1, of: 2 })
  expect(usesOfSegment(db, segment).mailings.map(({ id }) => id)).toEqual([mailing])
  deleteSegment(db, segment, at)
  expect(noteGoalHits(db, found(), at + 2 * HOUR)).toBe(0)
})
